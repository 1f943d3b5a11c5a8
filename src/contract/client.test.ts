import { readFileSync } from "node:fs";
import { endpointsFile } from "./endpointsFile";
import { createClient, endpointList, type SentBody } from ".";

interface Asked {
  address: string;
  method: string;
  headers: Record<string, string>;
  body: unknown;
}
let asked: Asked[];
let answers: (() => Promise<Response> | Response)[];
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
const lost = () => {
  throw new TypeError("the line is dead");
};
const real = { fetch: globalThis.fetch, setTimeout: globalThis.setTimeout };
let waited: number[];
beforeEach(() => {
  asked = [];
  answers = [];
  waited = [];
  globalThis.fetch = (async (address: string, { method, headers, body }: RequestInit) => {
    asked.push({ address, method: method ?? "", headers: headers as Record<string, string>, body });
    const next = answers.shift();
    if (!next) throw new Error("nobody expected this");
    return next();
  }) as typeof fetch;
  globalThis.setTimeout = ((go: () => void, ms: number) => {
    waited.push(ms);
    queueMicrotask(go);
    return 0;
  }) as unknown as typeof setTimeout;
});
afterEach(() => Object.assign(globalThis, real));
const call = createClient("http://lamp.test");
const rig = { name: "Fern" } as SentBody<"addRig">;

describe("what a client sends", () => {
  it("goes to the endpoint's own path and method, with the id and the query written safely", async () => {
    answers = [() => json({ rows: [] })];
    await call("viewProfile", { query: { rig: "a b", engine: "x&y=z", title: "" } });
    answers = [() => json({})];
    await call("viewRig", { id: "../rules?x=1" });
    expect(asked.map(({ address, method }) => [method, address])).toEqual([
      ["GET", "http://lamp.test/api/v1/profile?rig=a+b&engine=x%26y%3Dz&title="],
      ["GET", "http://lamp.test/api/v1/rigs/..%2Frules%3Fx%3D1"],
    ]);
  });
  it("says of JSON that it is JSON, of bytes that they are bytes, and nothing of nothing", async () => {
    answers = [() => json({ id: "1" }), () => json({ id: "1" }), () => json({})];
    await call("addRig", { body: rig });
    await call("importRun", { body: new Uint8Array([1, 2]) });
    await call("viewBench");
    expect(asked.map(({ headers }) => headers["content-type"])).toEqual([
      "application/json",
      "application/octet-stream",
      undefined,
    ]);
    expect(asked.map(({ body }) => body)).toEqual([JSON.stringify(rig), new Uint8Array([1, 2]), undefined]);
  });
  it("names the version that an edit saw, and a key of its own for whatever is made", async () => {
    answers = [() => json({}), () => json({ id: "1" }), () => json({ id: "2" })];
    await call("reviseRig", { id: "r", body: rig, saw: 7 });
    await call("addRig", { body: rig });
    await call("addRig", { body: rig });
    expect(asked[0]!.headers["if-match"]).toBe('"7"');
    const keys = asked.map(({ headers }) => headers["idempotency-key"]);
    expect(keys[0]).toBeUndefined();
    expect(keys[1]).toMatch(/^[0-9a-f-]{36}$/);
    expect(keys[2]).not.toBe(keys[1]);
  });
  it("carries a program's token, and none where there is none", async () => {
    answers = [() => json({}), () => json({})];
    await createClient("", "secret")("viewBench");
    await call("viewBench");
    expect(asked.map(({ headers }) => headers.authorization)).toEqual(["Bearer secret", undefined]);
  });
});

describe("what a client tells", () => {
  it("an answer as it came", async () => {
    answers = [() => json({ rows: [1] })];
    expect(await call("listRigs")).toEqual({ ok: true, answer: { rows: [1] } });
  });
  it("a refusal in words, with its fields, and both versions where an edit was stale", async () => {
    answers = [
      () => json({ title: "No.", detail: "Do this.", fields: { name: "Taken." } }, 422),
      () => json({ title: "Changed meanwhile.", detail: "Look.", saw: 3, current: 5 }, 409),
    ];
    expect(await call("addRig", { body: rig })).toEqual({
      ok: false,
      refusal: { status: 422, title: "No.", fix: "Do this.", fields: { name: "Taken." }, versions: null },
    });
    expect(await call("reviseRig", { id: "r", body: rig, saw: 3 })).toMatchObject({
      refusal: { versions: { saw: 3, current: 5 } },
    });
  });
  it("that nobody answers, in words; it never throws", async () => {
    answers = [lost, lost, lost];
    expect(await call("viewBench")).toMatchObject({
      ok: false,
      refusal: { status: 0, title: "The application doesn't answer." },
    });
  });
});

describe("trying again", () => {
  it("what makes something is tried under the same key, a little later each time", async () => {
    answers = [lost, lost, () => json({ id: "1" })];
    expect(await call("addRig", { body: rig })).toEqual({ ok: true, answer: { id: "1" } });
    expect(new Set(asked.map(({ headers }) => headers["idempotency-key"])).size).toBe(1);
    expect(waited).toEqual([400, 800]);
  });
  it("a read too; but never more than three times", async () => {
    answers = [lost, lost, lost, () => json({})];
    expect((await call("viewBench")).ok).toBe(false);
    expect(asked).toHaveLength(3);
  });
  it("an edit isn't: it may have been made", async () => {
    answers = [lost, () => json({})];
    expect((await call("reviseRig", { id: "r", body: rig, saw: 1 })).ok).toBe(false);
    expect(asked).toHaveLength(1);
  });
  it("a key that is given is the one that is sent", async () => {
    answers = [() => json({ id: "1" })];
    await call("addRig", { body: rig, key: "mine" });
    expect(asked[0]!.headers["idempotency-key"]).toBe("mine");
  });
  it("an answer that is no JSON counts as none", async () => {
    answers = [() => new Response("<html>"), () => new Response("<html>"), () => new Response("<html>")];
    expect((await call("viewBench")).ok).toBe(false);
  });
});

describe("the endpoints themselves", () => {
  it("no two are one method and path", () => {
    const places = endpointList.map(({ method, path }) => `${method} ${path.replace(/\{\w+\}/g, "{}")}`);
    expect(new Set(places).size).toBe(places.length);
  });
  it("an endpoint that only reads makes nothing and takes no body", () => {
    for (const { id, method, body, creates } of endpointList)
      if (method === "GET") expect([id, body, creates]).toEqual([id, null, false]);
  });
  it("each says what it does in a sentence", () => {
    for (const { id, summary } of endpointList)
      expect([id, /^[A-Z].{6,}\.$/.test(summary)]).toEqual([id, true]);
  });
});

it("what a caller knows of every endpoint is what the contract declares (`npm run endpoints` writes it)", () => {
  expect(readFileSync("src/contract/endpoints.ts", "utf8")).toBe(endpointsFile());
});
