import { endpointPages } from "./pages";
import { endpointList } from "./registry";

const page = (id: string) => endpointPages().find((each) => each.id === id)!;

describe("endpoints as a page shows them", () => {
  it("all stand there, once each", () =>
    expect(endpointPages().map(({ id }) => id)).toEqual(endpointList.map(({ id }) => id)));
  it("a body is written down by name, kind and choice, what may be left out with a question mark", () => {
    const { body } = page("addStills");
    expect(body).toMatch(/^\{\n {2}stills: \[\{\n {4}atMs: number\n/);
    expect(body).toContain('why: "mark" | "slow"');
    expect(body).toMatch(/pixels: string {3}Red, green and blue of every pixel, row by row\.\n/);
    expect(page("closeJob").body).toContain("note?: string");
  });
  it("what may be asked in the address is named; an endpoint that asks nothing names nothing", () => {
    expect(page("listTitles").query).toContain("search");
    expect(page("readStill").query).toEqual([]);
  });
  it("what isn't JSON has no outline", () => {
    expect(page("readStill").answer).toBeNull();
    expect(page("listStills").answer).toMatch(/^\{\n {2}rows: \[\{/);
  });
  it("no outline is empty or leaves a shape unsaid", () => {
    const bad = endpointPages().filter(({ body, answer }) =>
      [body, answer].some((outline) => outline !== null && /undefined|^\s*$/.test(outline)),
    );
    expect(bad.map(({ id }) => id)).toEqual([]);
  });
});
