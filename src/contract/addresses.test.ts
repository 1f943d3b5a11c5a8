import fc from "fast-check";
import { readdirSync } from "node:fs";
import { join } from "node:path";
import { backTo, endpointAt, endpointList, endpointsAt, isId, pageAt, pages, readTarget } from ".";

describe("a request's target", () => {
  it.each([
    ["/", []],
    ["/jobs", ["jobs"]],
    ["/jobs/", ["jobs"]],
    ["/jobs?", ["jobs"]],
    ["/jobs?search=it%27s%20%25", ["jobs"]],
    ["/jobs/a%20b?x=1", ["jobs", "a b"]],
    ["/%C3%A9", ["é"]],
  ])("%s is taken", (target, segments) => expect(readTarget(target)?.segments).toEqual(segments));
  // The URL standard's path state: the parser resolves dot segments, encoded or not, and reads a backslash as a slash.
  it.each([
    "/shared/../jobs",
    "/shared/%2e%2e/jobs",
    "/shared/.%2E/jobs",
    "/./jobs",
    "/jobs/%2e",
    "/shared\\..\\jobs",
    "//jobs",
    "//evil.example/jobs",
    "/jobs//x",
    "/\t/jobs",
    "/jobs/\u0000",
    "http://127.0.0.1/jobs",
    "jobs",
    "*",
    "",
    "/sign-in#/jobs",
    "/shared%2f..%2fjobs",
    "/shared%5c..%5cjobs",
    "/shared/%252e%252e/jobs",
    "/jobs%00",
    "/%",
    "/%ff",
    "/%c0%ae%c0%ae/jobs",
    "/jobs?x=%",
    "/jobs?x=%ff",
    "/jobs?x=<",
  ])("%j is refused", (target) => expect(readTarget(target)).toBeNull());
  it("what is taken is what the URL standard's parser makes of it, and climbs nowhere", () => {
    const piece = fc.constantFrom(
      "..",
      ".",
      "%2e",
      "%2E%2e",
      "/",
      "//",
      "\\",
      "%2f",
      "%5C",
      "%25",
      "%",
      "jobs",
      "a",
      ";",
      "?",
      "#",
      "%ff",
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 8 }), (parts) => {
        const sent = `/${parts.join("")}`;
        const read = readTarget(sent);
        if (!read) return;
        expect(new URL(sent, "http://lamp.invalid").pathname).toBe(read.path);
        expect(read.segments.some((segment) => /^\.\.?$|[/\\%]/.test(segment))).toBe(false);
      }),
      { numRuns: 2000 },
    );
  });
});

describe("the list of pages", () => {
  it("names every page of src/app, and no other", () => {
    const found = (folder: string, path: string): string[] =>
      readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
        if (entry.isFile()) return entry.name === "page.tsx" ? [path || "/"] : [];
        // What no page is at is said so.
        if (entry.name === "[...nowhere]") return [];
        return found(join(folder, entry.name), entry.name.startsWith("(") ? path : `${path}/${entry.name}`);
      });
    expect(found("src/app", "").sort()).toEqual(Object.keys(pages).sort());
  });
  it("words stand before ids", () => {
    expect(pageAt(["kit", "people"])).toBe("owner");
    expect(pageAt(["jobs", "new"])).toBe("reads");
    expect(pageAt(["jobs", "7"])).toBe("reads");
    expect(pageAt(["shared", "x"])).toBeNull();
    expect(pageAt(["Jobs"])).toBeNull();
  });
});

describe("endpoints by their address", () => {
  it("every one is found at its own path, and at no other method's", () => {
    const id = "00000000-0000-4000-8000-000000000000";
    for (const endpoint of endpointList) {
      const segments = endpoint.path
        .slice(1)
        .replace(/\{\w+\}/, id)
        .split("/");
      expect(endpointAt(endpoint.method, segments)?.endpoint.id).toBe(endpoint.id);
      expect(endpointsAt(segments)).toContain(endpoint);
      expect(endpointAt("TRACE", segments)).toBeNull();
    }
    expect(endpointAt("HEAD", ["jobs"])?.endpoint.id).toBe("listJobs");
    expect(endpointAt("HEAD", ["events"])).toBeNull();
    expect(endpointAt("POST", ["runs", "open"])?.endpoint.id).toBe("openRun");
  });
  it("ids are UUIDs", () => {
    expect(isId("9b2d7c1e-0f4a-4f0b-8a51-3f6b7f0a1c2d")).toBe(true);
    for (const text of [
      "",
      "open",
      "9b2d7c1e0f4a4f0b8a513f6b7f0a1c2d",
      "9b2d7c1e-0f4a-4f0b-8a51-3f6b7f0a1c2d ",
    ])
      expect(isId(text)).toBe(false);
  });
});

describe("the way back after signing in", () => {
  it.each([
    ["/board?hardness=hard", "/board?hardness=hard"],
    ["/jobs/7", "/jobs/7"],
    ["/\t/evil.example", "/"],
    ["/\n/evil.example", "/"],
    ["//evil.example", "/"],
    ["/\\evil.example", "/"],
    ["https://evil.example/", "/"],
    ["javascript:alert(1)", "/"],
    ["/%09/evil.example", "/"],
    ["/shared/x", "/"],
    ["/api/v1/jobs", "/"],
    ["/sign-in?back=/", "/"],
    ["/nowhere", "/"],
    ["", "/"],
  ])("%j leads to %s", (asked, to) => expect(backTo(asked)).toBe(to));
  it("never leaves this origin", () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom("/", "\\", "\t", "\n", "@", ":", ".", "e", "jobs", "?", "#") }),
        (asked) => {
          expect(new URL(backTo(asked), "http://lamp.invalid").origin).toBe("http://lamp.invalid");
        },
      ),
    );
  });
});
