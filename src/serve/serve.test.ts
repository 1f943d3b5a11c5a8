import { isOwnHost, isOwnOrigin, ownNames } from "./addresses";
import { pageKey } from "./front";
import { Pages, madeFor, nonceIn, type MadePage, type PageSource } from "./pages";
import { PageExchange, otherPages } from "./share";
import { drawFirstPages } from "./warm";
import { callerOf } from "@/server/actor";

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
  const page: MadePage = {
    headers: { "content-security-policy": "script-src 'nonce-abc123'", link: ['</a>; nonce="abc123"'] },
    text: Buffer.from('<p>½</p><script nonce="abc123">1</script><script nonce="abc123"/>'),
    nonce: "abc123",
    at: 0,
  };
  /** What a source has, or null and it is made elsewhere. */
  const had = async (source: PageSource, key: string, mark: string) => (await source.take(key, mark)).page;
  const makes = async (source: PageSource, key: string, mark: string) => {
    const taken = await source.take(key, mark);
    if (taken.page) throw new Error("it is there already");
    return taken.made;
  };
  it("are found until something changes, and for half a minute at most", async () => {
    let now = 0;
    const pages = new Pages(() => now);
    (await makes(pages, "/", "mark 1"))(page);
    expect(await had(pages, "/", "mark 1")).toMatchObject(page);
    expect(await had(pages, "/", "mark 2")).toBeNull();
    expect(await had(pages, "/jobs", "mark 1")).toBeNull();
    now = 29_999;
    expect(await had(pages, "/", "mark 1")).not.toBeNull();
    now = 30_000;
    expect(await had(pages, "/", "mark 1")).toBeNull();
  });
  it("whoever asks meanwhile waits for the one being made; one that can't be shared is told so", async () => {
    const pages = new Pages(() => 0);
    const made = await makes(pages, "/", "mark");
    const waiting = had(pages, "/", "mark");
    expect(await had(pages, "/", "another mark")).toBeNull();
    made(page);
    expect(await waiting).toEqual(page);
    const failed = await makes(pages, "/b", "mark");
    const waits = had(pages, "/b", "mark");
    failed("unshared");
    expect(await waits).toBeNull();
    (await makes(pages, "/b", "mark"))(page);
    expect(await had(pages, "/b", "mark")).not.toBeNull();
  });
  it("one whose asker has gone is made by the first who waited, and the others wait for that", async () => {
    const pages = new Pages(() => 0);
    const left = await makes(pages, "/", "mark");
    const [next, last] = [makes(pages, "/", "mark"), had(pages, "/", "mark")];
    left("left");
    (await next)(page);
    expect(await last).toEqual(page);
  });
  it("two who ask in one moment don't both make it", async () => {
    const pages = new Pages(() => 0);
    const [first, second] = [pages.take("/", "mark"), pages.take("/", "mark")];
    (first as { made: (page: MadePage) => void }).made(page);
    expect(await second).toEqual({ page });
  });
  it("carry a nonce of their own in every header and script, and nothing else is new", () => {
    const again = madeFor(page, "fresh");
    expect(Buffer.from(again.text).toString()).toBe(
      '<p>½</p><script nonce="fresh">1</script><script nonce="fresh"/>',
    );
    expect(again.headers.link).toEqual(['</a>; nonce="fresh"']);
    expect(nonceIn(again.headers["content-security-policy"])).toBe("fresh");
  });

  /** A start of some processes, in one: what they say arrives later, as bytes do. */
  function start(processes: number) {
    const exchange = new PageExchange(new Pages(() => 0));
    return Array.from({ length: processes }, () => {
      const copied = <Word>(word: Word): Word => structuredClone(word);
      const member = exchange.joined((word) => setImmediate(() => others.hears(copied(word))));
      const others = otherPages((word) => setImmediate(() => member.hears(copied(word))));
      return { others, gone: member.gone };
    });
  }
  it("are made by one process of a start, and sent by all", async () => {
    const [a, b, c] = start(3).map(({ others }) => others);
    const made = await makes(a!, "/", "mark");
    const [asked, another] = [had(b!, "/", "mark"), had(b!, "/", "another mark")];
    expect(await another).toBeNull();
    made(page);
    expect(await asked).toMatchObject({ nonce: "abc123" });
    const later = await had(c!, "/", "mark");
    expect(Buffer.from(later!.text)).toEqual(page.text);
  });
  it("of a process that ended while it made one are made by another", async () => {
    const [a, b, c] = start(3);
    await makes(a!.others, "/", "mark");
    const asked = makes(b!.others, "/", "mark");
    await new Promise(setImmediate);
    a!.gone();
    (await asked)(page);
    expect(await had(c!.others, "/", "mark")).not.toBeNull();
  });
  it("of a process that ended while it waited for one are made by another, too", async () => {
    const [a, b, c] = start(3);
    const made = await makes(a!.others, "/", "mark");
    void b!.others.take("/", "mark");
    const asked = makes(c!.others, "/", "mark");
    await new Promise(setImmediate);
    b!.gone();
    made("left");
    (await asked)(page);
    expect(await had(a!.others, "/", "mark")).not.toBeNull();
  });
  it("an answer that comes too late keeps nobody waiting", async () => {
    const told: unknown[] = [];
    const { hears } = otherPages((word) => told.push(word));
    hears({ about: "page found", ask: "an old one", page: null });
    hears({ about: "page found", ask: "another", page });
    expect(told).toEqual([{ about: "page made", ask: "an old one", outcome: "left" }]);
  });
  it("are made here where nobody answers in time", async () => {
    jest.useFakeTimers();
    const alone = had(
      otherPages(() => undefined),
      "/",
      "mark",
    );
    await jest.advanceTimersByTimeAsync(10_000);
    expect(await alone).toBeNull();
    jest.useRealTimers();
  });
  it("are kept by who asks, theme and address; endpoints, files, parts of pages and pages with a clock aren't", () => {
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

describe("what is drawn before anybody asks", () => {
  it("is asked by the application of itself, to read, and goes nowhere however long it is", async () => {
    const asked: string[] = [];
    let ended = 0;
    await drawFirstPages(async ({ url = "", headers }, response) => {
      const { asker } = callerOf({ get: (name) => String(headers[name]) });
      asked.push(`${asker?.name} ${asker?.may} ${headers.host} ${url}`);
      // As a framework does that waits until there is room again.
      if (!response.write("x".repeat(200_000))) await new Promise((resolve) => response.once("drain", resolve));
      await new Promise<void>((resolve) => response.end("", resolve));
      ended++;
    }, "127.0.0.1:3210");
    expect(asked[0]).toBe("the application reads 127.0.0.1:3210 /");
    expect(asked.length).toBeGreaterThan(2);
    expect(ended).toBe(asked.length);
  });
  it.each([
    ["fails", () => Promise.reject(new Error("no store"))],
    ["never ends", () => new Promise(() => {})],
  ])("nobody waits for one that %s", async (_how, framework) =>
    expect(await drawFirstPages(framework, "127.0.0.1:3210", 20)).toBeUndefined(),
  );
});
