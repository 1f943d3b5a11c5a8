/** @jest-environment jsdom */
import { call } from "@/contract/client";
import { letGo, sendLater, sendUnsent, typedBy } from "./outbox";

jest.mock("@/contract/client", () => ({ call: jest.fn() }));
const called = call as unknown as jest.Mock;
const waits = () =>
  JSON.parse(localStorage.getItem("unsent") ?? "[]") as { key: string; refusal: string | null }[];
const tally = (key: string) => ({ key, name: "tallyRun" as const, asking: { body: {} as never }, label: key });
const refused = (status: number) => ({
  ok: false,
  refusal: { status, title: "No.", fix: "Look at it.", fields: {}, versions: null },
});
beforeEach(() => {
  localStorage.clear();
  called.mockReset();
  typedBy(null);
});

describe("what waits to be sent", () => {
  it("is sent in its order under its own key, and is gone then", async () => {
    sendLater(tally("a"));
    sendLater(tally("b"));
    called.mockResolvedValue({ ok: true, answer: { id: "run", number: 1 } });
    expect((await sendUnsent()).map(({ key }) => key)).toEqual(["a", "b"]);
    expect(called.mock.calls.map(([name, { key }]) => [name, key])).toEqual([
      ["tallyRun", "a"],
      ["tallyRun", "b"],
    ]);
    expect(waits()).toEqual([]);
  });
  it.each([0, 502, 503])("stays as it is where the application answers %d", async (status) => {
    sendLater(tally("a"));
    sendLater(tally("b"));
    called.mockResolvedValue(refused(status));
    expect(await sendUnsent()).toEqual([]);
    expect(called).toHaveBeenCalledTimes(1);
    expect(waits().map(({ refusal }) => refusal)).toEqual([null, null]);
  });
  it("stays with the reason where it is refused, is not tried again, and can be let go", async () => {
    sendLater(tally("a"));
    called.mockResolvedValue(refused(422));
    await sendUnsent();
    await sendUnsent();
    expect(called).toHaveBeenCalledTimes(1);
    expect(waits()).toMatchObject([{ key: "a", refusal: "No. Look at it." }]);
    letGo("a");
    expect(waits()).toEqual([]);
  });
  it("is sent by nobody but the person who typed it", async () => {
    called.mockResolvedValue({ ok: true, answer: {} });
    typedBy("Ida");
    sendLater(tally("a"));
    typedBy("Bram");
    expect(await sendUnsent()).toEqual([]);
    typedBy("Ida");
    expect(await sendUnsent()).toHaveLength(1);
  });
  it("what can't be read counts as nothing", async () => {
    localStorage.setItem("unsent", "{");
    expect(await sendUnsent()).toEqual([]);
  });
});
