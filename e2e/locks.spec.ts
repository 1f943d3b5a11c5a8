import { expect, request as requests, test, type APIRequestContext } from "@playwright/test";
import { connect } from "node:tls";
import { endpointList, pages } from "@/contract";
import { stopServer, type Server } from "../scripts/lib/application.mjs";
import { letPeopleIn, people, sendRaw, startShared } from "./shared";

/* Every page and every endpoint, asked for by crooked paths: nobody gets in who wasn't let in. */

let server: Server;
let base = "";
let port = 0;
let ida: APIRequestContext;
let bram: APIRequestContext;
/** What stands on pages that only people see. */
let secrets: string[] = [];
const anId = "00000000-0000-4000-8000-000000000000";
const ids: Record<string, string> = {};

async function signedIn(name: keyof typeof people): Promise<APIRequestContext> {
  const context = await requests.newContext({ baseURL: base, ignoreHTTPSErrors: true });
  const sent = await context.post("/api/v1/sessions", { data: { name, passphrase: people[name] } });
  expect(sent.status()).toBe(200);
  return context;
}

test.beforeAll(async () => {
  const url = process.env.LAMP_TEST_DATABASE ?? "";
  letPeopleIn(url);
  ({ server, base, port } = await startShared(url, 3730));
  ida = await signedIn("Ida");
  bram = await signedIn("Bram");
  const rows = async (list: string): Promise<Record<string, string>[]> =>
    (await (await ida.get(`/api/v1/${list}`)).json()).rows;
  const [rigs, titles, jobs, campaigns] = await Promise.all(["rigs", "titles", "jobs", "campaigns"].map(rows));
  secrets = [...rigs, ...titles].map(({ name }) => name).filter((name) => name.length > 4);
  Object.assign(ids, { rigs: rigs[0].id, titles: titles[0].id, jobs: jobs[0].id, campaigns: campaigns[0].id });
});
test.afterAll(async () => {
  await ida.dispose();
  await bram.dispose();
  await stopServer(server);
});

/** A path with ids that are there, where the demo has them. */
const filled = (path: string) =>
  path.replaceAll(
    /\/(\w[\w-]*)\/(?:\{\w+\}|\[\w+\])/g,
    (_all, list: string) => `/${list}/${ids[list] ?? anId}`,
  );

/** One request as it goes over the wire. */
interface Spelling {
  method?: string;
  target: string;
  headers?: string[];
  version?: string;
}

/** A path as somebody spells it who hopes that one reader of it sees something else than another. */
function spellings(path: string): Spelling[] {
  const tail = path.slice(1);
  const at = (...targets: string[]): Spelling[] => targets.map((target) => ({ target }));
  const by = (...headers: string[]): Spelling => ({ target: "/sign-in", headers });
  return [
    // Dot segments, plain and encoded, behind what is open.
    ...at(`/shared/..${path}`, `/shared/../..${path}`, `/_next/static/../..${path}`, `/api/v1/../..${path}`),
    ...at(`/icon.svg/..${path}`, `/sign-in/..${path}`, `/shared/x/../..${path}`, `/.${path}`, `/x/..${path}`),
    ...at(
      `/shared/%2e%2e${path}`,
      `/shared/%2E%2E${path}`,
      `/shared/.%2e${path}`,
      `/sign-in/%2e%2e${path}`,
      `/%2e${path}`,
    ),
    // Encoded twice, overlong, separators encoded.
    ...at(
      `/shared/%252e%252e${path}`,
      `/shared/%c0%ae%c0%ae${path}`,
      `/shared%2f..%2f${tail}`,
      `/shared/..%2f${tail}`,
    ),
    // Backslashes, slashes, case, dots, blanks, semicolons, NULs, endings.
    ...at(`/shared\\..\\${tail}`, `/shared/..\\${tail}`, `/shared%5c..%5c${tail}`, `/\\${tail}`),
    ...at(
      `/${path}`,
      `//x${path}`,
      `${path}//`,
      `/shared//..${path}`,
      path.toUpperCase(),
      `${path}.`,
      `${path}/.`,
    ),
    ...at(
      `${path}%20`,
      `${path};x`,
      `/sign-in;/..${path}`,
      `/shared/..;${path}`,
      `${path}%00`,
      `${path}%2f`,
      `/%09${path}`,
    ),
    ...at(
      `${path}.rsc`,
      `${path}.txt`,
      `${path}.json`,
      `/_next/data/build${path}.json`,
      `/_next/image?url=${path}&w=64&q=1`,
    ),
    // Absolute-form targets, fragments, an older HTTP.
    ...at(
      `https://127.0.0.1:${port}${path}`,
      `http://lamp.invalid${path}`,
      `/sign-in#/..${path}`,
      `/sign-in?/..${path}`,
    ),
    { target: path, version: "1.0" },
    // Headers from which a framework or a proxy takes the address, the route or the caller.
    by(
      `x-rewrite-url: ${path}`,
      `x-original-url: ${path}`,
      `x-forwarded-uri: ${path}`,
      `x-matched-path: ${path}`,
    ),
    by(`x-invoke-path: ${path}`, `x-middleware-rewrite: ${path}`, `next-url: ${path}`, "x-nextjs-data: 1"),
    {
      target: path,
      headers: ["x-middleware-subrequest: proxy:proxy:proxy:proxy:proxy", "x-middleware-prefetch: 1"],
    },
    { target: path, headers: ["x-middleware-subrequest: src/proxy:src/proxy:src/proxy:src/proxy:src/proxy"] },
    {
      target: path,
      headers: ["x-forwarded-for: 127.0.0.1", "x-real-ip: 127.0.0.1", "forwarded: for=127.0.0.1"],
    },
    {
      target: path,
      headers: [
        `x-lamp-caller: ${encodeURIComponent(JSON.stringify({ asker: { kind: "machine", name: "x", may: "tunes", id: "" }, address: "", secure: true }))}`,
      ],
    },
    // The framework's own requests for parts of pages and for actions; other methods.
    { target: path, headers: ["rsc: 1", "next-router-prefetch: 1", "next-router-segment-prefetch: /_tree"] },
    { target: `${path}?_rsc=x`, headers: ["rsc: 1", "next-router-state-tree: %5B%22%22%2C%7B%7D%5D"] },
    {
      target: path,
      method: "POST",
      headers: ["next-action: 7f", "content-type: text/plain", "content-length: 0"],
    },
    { target: path, method: "POST", headers: ["x-http-method-override: GET", "content-length: 0"] },
    ...["HEAD", "OPTIONS", "TRACE", "PROPFIND", "QUERY"].map((method) => ({ target: path, method })),
  ];
}

const sent = async ({ method = "GET", target, headers = [], version = "1.1" }: Spelling, more: string[] = []) =>
  sendRaw(
    port,
    [
      `${method} ${target} HTTP/${version}`,
      `host: 127.0.0.1:${port}`,
      "connection: close",
      ...headers,
      ...more,
      "",
      "",
    ].join("\r\n"),
  );

/** Asks a few at a time, and says which answers told a stranger something. */
async function told(asked: Spelling[], isOpen: (spelling: Spelling) => boolean, more: string[] = []) {
  const found: string[] = [];
  const queue = [...asked];
  const worker = async () => {
    for (let next = queue.pop(); next; next = queue.pop()) {
      const { status, body } = await sent(next, more);
      const secret = secrets.find((each) => body.includes(each));
      const isClosed = [303, 400, 401, 403, 404, 405, 501].includes(status);
      if (secret !== undefined || !(isClosed || (status === 200 && isOpen(next))))
        found.push(
          `${next.method ?? "GET"} ${next.target} ${next.headers ?? ""} → ${status} ${secret ?? body.slice(0, 60)}`,
        );
    }
  };
  await Promise.all(Array.from({ length: 4 }, worker));
  return found;
}

test("a stranger gets no page by any spelling of its address", async () => {
  test.setTimeout(300_000);
  expect(spellings("/jobs").length).toBeGreaterThanOrEqual(40);
  const asked = Object.entries(pages).flatMap(([path, who]) =>
    who === "anybody" ? [] : [{ target: filled(path) }, ...spellings(filled(path))],
  );
  expect(await told(asked, ({ target }) => /^\/sign-in([?#]|$)/.test(target))).toEqual([]);
});

test("a stranger gets no endpoint by any spelling of its address", async () => {
  test.setTimeout(300_000);
  const asked = endpointList.flatMap(({ path, method, who }) =>
    who === "anybody"
      ? []
      : spellings(filled(`/api/v1${path}`)).map((each) => ({ ...each, method: each.method ?? method })),
  );
  expect(await told(asked, ({ target, method }) => target.startsWith("/sign-in") && method === "GET")).toEqual(
    [],
  );
});

test("the same spellings with the framework's words for what was asked leave the way in alone", async () => {
  const { status, body } = await sent({ target: "/sign-in", headers: ["x-rewrite-url: /jobs"] });
  expect([status, body.includes("Passphrase")]).toEqual([200, true]);
});

test("who may only read changes nothing and sees nobody; a program that tunes makes no tokens; one that brings runs in tunes nothing", async () => {
  const program = async (may: string) => {
    const made = await ida.post("/api/v1/programs", { data: { name: `a program that ${may}`, may } });
    expect(made.status()).toBe(201);
    const { token } = await made.json();
    return requests.newContext({
      baseURL: base,
      ignoreHTTPSErrors: true,
      extraHTTPHeaders: { authorization: `Bearer ${token}` },
    });
  };
  const [reads, runs, tunes, metrics] = await Promise.all(["reads", "runs", "tunes", "metrics"].map(program));
  const callers = { bram, reads, runs, tunes, metrics };
  const may: Record<keyof typeof callers, string[]> = {
    bram: ["anybody", "metrics", "reads"],
    reads: ["anybody", "metrics", "reads"],
    runs: ["anybody", "metrics", "reads", "runs"],
    tunes: ["anybody", "metrics", "reads", "runs", "tunes"],
    metrics: ["anybody", "metrics"],
  };
  let refused = 0;
  for (const [name, caller] of Object.entries(callers))
    for (const { id, method, path, who } of endpointList) {
      if (may[name as keyof typeof callers].includes(who)) continue;
      const answer = await caller.fetch(filled(`/api/v1${path}`), {
        method,
        ...(method === "GET" ? {} : { data: "{}" }),
      });
      expect([name, id, answer.status()]).toEqual([name, id, 403]);
      refused++;
    }
  expect(refused).toBeGreaterThan(200);
  for (const caller of [bram, reads, runs, tunes]) {
    const page = await (await caller.get("/kit/people")).text();
    expect(page).toContain("Only an owner sees this page.");
    expect(page).not.toContain("Ida");
  }
  expect(await (await ida.get("/kit/people")).text()).toContain("Ida");
  expect((await metrics.get("/jobs", { maxRedirects: 0 })).status()).toBe(303);
  for (const caller of [reads, runs, tunes, metrics]) await caller.dispose();
});

test("a stream of changes ends with the session or the token that let it in", async () => {
  const program = await (
    await ida.post("/api/v1/programs", { data: { name: "a listener", may: "reads" } })
  ).json();
  const leaving = await signedIn("Ida");
  const { cookies } = await leaving.storageState();
  const cookie = cookies.map(({ name, value }) => `${name}=${value}`).join("; ");
  const listen = async (header: string) => {
    const socket = connect({ port, host: "127.0.0.1", rejectUnauthorized: false });
    const stream = { said: "", isOver: false };
    socket.setEncoding("utf8");
    socket.on("data", (part: string) => (stream.said += part));
    socket.on("error", () => undefined);
    socket.on("close", () => (stream.isOver = true));
    socket.write(
      `GET /api/v1/events HTTP/1.1\r\nhost: 127.0.0.1:${port}\r\nconnection: close\r\n${header}\r\n\r\n`,
    );
    await expect.poll(() => stream.said).toContain("retry:");
    return stream;
  };
  const [bySession, byToken] = [
    await listen(`cookie: ${cookie}`),
    await listen(`authorization: Bearer ${program.token}`),
  ];
  await leaving.post("/api/v1/sessions/own/end");
  await expect.poll(() => bySession.isOver).toBe(true);
  expect(byToken.isOver).toBe(false);
  await ida.delete(`/api/v1/programs/${program.id}`);
  await expect.poll(() => byToken.isOver).toBe(true);
  const system = {
    name: `Heard by nobody ${Date.now()}`,
    screens: [],
    rates: [{ region: "", hz: 60 }],
    note: "",
  };
  expect((await ida.post("/api/v1/systems", { data: system })).status()).toBe(201);
  for (const { said } of [bySession, byToken]) expect(said).not.toContain('"kit"');
  await leaving.dispose();
});

test("what isn't a request that HTTP knows is refused with the headers that every answer has", async () => {
  const heads = (text: string) =>
    expect(text.toLowerCase()).toMatch(
      /x-content-type-options: nosniff[^]*x-frame-options: deny|x-frame-options: deny[^]*x-content-type-options: nosniff/,
    );
  for (const method of ["TRACE", "PROPFIND", "QUERY", "NONSENSE", "get"]) {
    const { status, head } = await sent({ method, target: "/sign-in" });
    expect([method, [400, 405].includes(status)]).toEqual([method, true]);
    heads(head);
  }
  for (const target of ["/%ff", "/%", "/sign-in?back=%", "/api/v1/health?x=%ff", "/shared/%"]) {
    const { status, head } = await sent({ target });
    expect([target, status]).toEqual([target, 400]);
    heads(head);
  }
  const { status, head } = await sent({ target: "/sign-in", headers: ["content-length: 5"] });
  expect(status).toBe(400);
  expect(head.toLowerCase()).toContain("connection: close");
  heads((await sendRaw(port, "nonsense\r\n\r\n")).head);
  // HTTP/2 isn't spoken: its preface is refused, and no other protocol is agreed on.
  expect((await sendRaw(port, "PRI * HTTP/2.0\r\n\r\nSM\r\n\r\n")).status).toBe(400);
  const agreed = await new Promise<unknown>((resolve, reject) => {
    const socket = connect(
      { port, host: "127.0.0.1", rejectUnauthorized: false, ALPNProtocols: ["h2", "http/1.1"] },
      () => {
        resolve(socket.alpnProtocol);
        socket.destroy();
      },
    );
    socket.on("error", reject);
  });
  expect(agreed).toBe("http/1.1");
});

test("signing in leads back to pages of ours alone", async ({ browser }) => {
  const context = await browser.newContext({ baseURL: base, ignoreHTTPSErrors: true });
  const page = await context.newPage();
  for (const back of [
    "%2F%09%2Fevil.example",
    "%2F%5Cevil.example",
    "%2F%2Fevil.example",
    "%2Fshared%2Fx",
    "/%2Fevil.example",
  ]) {
    await page.goto(`/sign-in?back=${back}`);
    await page.getByLabel("Name").fill("Ida");
    await page.getByLabel("Passphrase").fill(people.Ida);
    await page.getByRole("button", { name: "Sign in" }).click();
    await expect(page).toHaveURL(`${base}/`);
  }
  await context.close();
});

test("a connection that says nothing is closed, and one that has said something is told when", async () => {
  test.setTimeout(60_000);
  const began = Date.now();
  const socket = connect({ port, host: "127.0.0.1", rejectUnauthorized: false });
  socket.on("error", () => undefined);
  socket.resume();
  await new Promise((resolve) => socket.once("close", resolve));
  expect(Date.now() - began).toBeLessThan(30_000);
  const answer = await bram.get("/api/v1/health");
  expect(answer.headers()["keep-alive"]).toBe("timeout=55");
});
