import { isOwnHost, isOwnOrigin, ownNames } from "./addresses";
import { pageKey } from "./front";
import { Pages, madeFor, nonceIn } from "./pages";

describe("the application's own names", () => {
  const loopback = ownNames("127.0.0.1", "");
  it.each([
    ["127.0.0.1:3210", true],
    ["localhost", true],
    ["[::1]:3210", true],
    ["LOCALHOST:80", true],
    ["127.0.0.1.evil.example", false],
    ["localhost.evil.example:3210", false],
    ["evil.example", false],
    ["127.0.0.1:3210@evil.example", false],
    ["127.0.0.1 evil", false],
    ["", false],
    [undefined, false],
  ])("%s is answered: %s", (host, answered) => expect(isOwnHost(host, loopback)).toBe(answered));
  it("beyond this machine its name and what was added are answered too, and nothing else", () => {
    const names = ownNames("0.0.0.0", "bench.example, Lamp.Example");
    expect(isOwnHost("bench.example:3210", names)).toBe(true);
    expect(isOwnHost("lamp.example", names)).toBe(true);
    expect(isOwnHost("other.example", names)).toBe(false);
  });
});

describe("pages that may write", () => {
  const host = "127.0.0.1:3210";
  it.each([
    ["http://127.0.0.1:3210", null, "http", true],
    ["https://127.0.0.1:3210", null, "http", false],
    ["http://127.0.0.1:3210", null, "https", false],
    ["http://127.0.0.1:9999", null, "http", false],
    ["https://evil.example", null, "https", false],
    ["null", null, "http", false],
    ["not an origin", null, "http", false],
    [null, "cross-site", "http", false],
    [null, "same-site", "http", false],
    [null, "same-origin", "http", true],
    [null, null, "http", true],
  ] as const)("origin %s, site %s over %s: %s", (origin, site, scheme, may) =>
    expect(isOwnOrigin({ origin, site, host }, scheme)).toBe(may),
  );
});

describe("pages made once a change", () => {
  const page = {
    headers: { "content-security-policy": "script-src 'nonce-abc123'", link: ['</a>; nonce="abc123"'] },
    text: '<script nonce="abc123">1</script>',
    nonce: "abc123",
  };
  it("are found until something changes, and for half a minute at most", () => {
    let now = 0;
    const pages = new Pages(() => now);
    pages.begin("/", "mark 1")(page);
    expect(pages.find("/", "mark 1")?.text).toBe(page.text);
    expect(pages.find("/", "mark 2")).toBeNull();
    expect(pages.find("/jobs", "mark 1")).toBeNull();
    now = 29_999;
    expect(pages.find("/", "mark 1")).not.toBeNull();
    now = 30_000;
    expect(pages.find("/", "mark 1")).toBeNull();
  });
  it("whoever asks meanwhile waits for the one being made; one that can't be shared is told so", async () => {
    const pages = new Pages();
    const told = pages.begin("/", "mark");
    const waiting = pages.underWay("/", "mark");
    expect(pages.underWay("/", "another mark")).toBeNull();
    told(page);
    expect(await waiting).toEqual(page);
    expect(pages.underWay("/", "mark")).toBeNull();
    const failed = pages.begin("/b", "mark");
    const waits = pages.underWay("/b", "mark");
    failed(null);
    expect(await waits).toBeNull();
    expect(pages.find("/b", "mark")).toBeNull();
  });
  it("carry a nonce of their own in every header and script", () => {
    const again = madeFor(page, "fresh");
    expect(JSON.stringify(again)).not.toContain("abc123");
    expect(again.text).toContain('nonce="fresh"');
    expect(nonceIn(again.headers["content-security-policy"])).toBe("fresh");
  });
  it("are kept by who asks, theme and address; doors, files, parts of pages and pages with a clock aren't", () => {
    const asked = (url: string, headers: Record<string, string> = {}, method = "GET") =>
      pageKey({ method, url, headers: { host: "127.0.0.1", ...headers } }, "machine");
    expect(asked("/jobs?search=a")).not.toBeNull();
    expect(asked("/jobs?search=a")).not.toBe(asked("/jobs?search=b"));
    expect(asked("/jobs")).not.toBe(asked("/jobs", { cookie: "a=1; theme=daylight" }));
    expect(pageKey({ method: "GET", url: "/", headers: {} }, "person Ida tunes")).not.toBe(
      pageKey({ method: "GET", url: "/", headers: {} }, "person Bram reads"),
    );
    for (const url of [
      "/api/v1/jobs",
      "/_next/static/a.js",
      "/icon.svg",
      "/campaigns/1",
      "/kit/people",
      "/shared/x",
    ])
      expect([url, asked(url)]).toEqual([url, null]);
    expect(asked("/", { rsc: "1" })).toBeNull();
    expect(asked("/", {}, "POST")).toBeNull();
  });
});
