import { bytesBody } from "./endpoint";
import { spawnSync } from "node:child_process";
import { z } from "@/core/schema";
import { said } from "@/core/words";
import { createClient, endpointList, endpointNamed, idsIn, openApi, withWords } from ".";

describe("the OpenAPI document", () => {
  const document = openApi() as {
    openapi: string;
    paths: Record<
      string,
      Record<string, { operationId: string; parameters: { name: string; required: boolean }[] }>
    >;
  };
  it("is 3.1 and passes a well-kept linter without an error or a warning", () => {
    const lint = spawnSync("node_modules/.bin/tsx", ["scripts/openapi.ts", "lint"], { encoding: "utf8" });
    expect([lint.stdout, lint.status]).toEqual(["", 0]);
    expect(document.openapi).toBe("3.1.0");
  });
  it("describes every endpoint once", () => {
    const described = Object.values(document.paths).flatMap((methods) =>
      Object.values(methods).map(({ operationId }) => operationId),
    );
    expect(described.sort()).toEqual(endpointList.map(({ id }) => id).sort());
  });
  it("says which endpoints take a version, and which a key", () => {
    const asked = (path: string, method: string) =>
      document.paths[path]![method]!.parameters.map(({ name, required }) => `${name} ${required ?? false}`);
    expect(asked("/rigs/{id}", "put")).toContain("If-Match true");
    expect(asked("/trials/{id}/decision", "post")).toContain("If-Match false");
    expect(asked("/jobs", "post")).toContain("Idempotency-Key false");
    expect(asked("/jobs", "get")).toEqual([
      "search false",
      "cursor false",
      "limit false",
      "filter false",
      "sort false",
    ]);
  });
});

describe("endpoints", () => {
  it("no two stand at one place", () => {
    const places = endpointList.map(({ method, path }) => `${method} ${path.replace(/\{\w+\}/g, "{}")}`);
    expect(new Set(places).size).toBe(places.length);
  });
  it("a GET changes nothing: it edits and makes nothing, and takes no body", () => {
    for (const { method, edits, creates, body } of endpointList.filter((endpoint) => endpoint.method === "GET"))
      expect([method, edits, creates, body]).toEqual(["GET", null, false, null]);
  });
  it("whatever makes something takes a key and answers 201; whatever replaces something takes its version", () => {
    for (const endpoint of endpointList.filter(({ creates }) => creates))
      expect([endpoint.id, endpoint.status]).toEqual([endpoint.id, 201]);
    const replaced = endpointList.filter(
      ({ method, path, body }) =>
        (method === "PUT" || method === "PATCH") &&
        body &&
        body !== bytesBody &&
        (path.includes("{id}") || path === "/bench"),
    );
    for (const endpoint of replaced) expect([endpoint.id, endpoint.edits]).toEqual([endpoint.id, "required"]);
  });
  it("an id in the path is the only one, and is called so", () => {
    for (const { path } of endpointList) expect(["", "id"]).toContain(idsIn(path).join());
  });
});

describe("the client", () => {
  const answers = (...made: (Response | Error)[]) => {
    const asked: { address: string; init: RequestInit }[] = [];
    jest.spyOn(globalThis, "fetch").mockImplementation(async (address, init) => {
      asked.push({ address: String(address), init: init! });
      const next = made.shift()!;
      if (next instanceof Error) throw next;
      return next;
    });
    return asked;
  };
  const header = (init: RequestInit, name: string) => (init.headers as Record<string, string>)[name];
  const call = createClient("http://lamp");
  const body = { name: "x", rules: {} } as never;
  afterEach(() => jest.restoreAllMocks());

  it("tries again with the same key when no answer came, so that nothing is made twice", async () => {
    const asked = answers(new Error("gone"), Response.json({ id: "1" }, { status: 201 }));
    expect(await call("addHouseRules", { body })).toEqual({ ok: true, answer: { id: "1" } });
    const keys = asked.map(({ init }) => header(init, "idempotency-key"));
    expect(keys[0]).toBe(keys[1]);
    expect(keys[0]!.length).toBeGreaterThan(8);
  });
  it("never sends an edit a second time by itself", async () => {
    const asked = answers(new Error("gone"));
    const sent = await call("changeHouseRules", { id: "a/b", body, saw: 3 });
    expect(sent).toMatchObject({ ok: false, refusal: { status: 0 } });
    expect(asked).toHaveLength(1);
    expect([asked[0]!.address, header(asked[0]!.init, "if-match")]).toEqual([
      "http://lamp/api/v1/house-rules/a%2Fb",
      '"3"',
    ]);
  });
  it("hands on both versions of a stale edit", async () => {
    answers(Response.json({ title: "t", detail: "d", fields: {}, saw: 3, current: 5 }, { status: 409 }));
    expect(await call("changeHouseRules", { id: "1", body, saw: 3 })).toMatchObject({
      refusal: { status: 409, versions: { saw: 3, current: 5 } },
    });
  });
});

it("answers carry every sentence's words beside its code and figures, however deep", () => {
  const sentence = said("drift.days", { days: 3 });
  const at = new Date();
  expect(withWords({ a: [{ b: sentence }], at, n: null })).toEqual({
    a: [{ b: { ...sentence, words: "Its runs lie 3 days apart." } }],
    at,
    n: null,
  });
});

it("every schema of a body and an answer can be published", () => {
  for (const { body, output } of endpointList)
    for (const schema of [body, output])
      if (schema) expect(() => z.toJSONSchema(schema, { io: "input", unrepresentable: "any" })).not.toThrow();
  expect(endpointNamed("viewJob").id).toBe("viewJob");
});
