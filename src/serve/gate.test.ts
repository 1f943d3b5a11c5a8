import { endpointList, pages } from "@/contract";
import type { Asker } from "@/server/actor";
import { dropForeignHeaders, passage, type AskedTarget } from "./gate";

const files = new Set(["/_next/static/chunks/a.js"]);
const person = (may: Asker["may"]): Asker => ({ kind: "person", name: "Bram", may, id: "1" });
const program = (may: Asker["may"]): Asker => ({ ...person(may), kind: "program" });
const ask = (asked: Partial<AskedTarget>, who: Asker | null = null) => {
  const passed = passage({ method: "GET", url: "/", headers: {}, ...asked }, who, files);
  return passed.kind === "refuse" ? passed.status : passed.kind;
};
const pathOf = (path: string) => path.replaceAll(/\{\w+\}|\[\w+\]/g, "00000000-0000-4000-8000-000000000000");

describe("what stands before the framework", () => {
  it("lets strangers to the way in, what it is drawn with, links given away and the open endpoints, and nowhere else", () => {
    for (const url of [
      "/sign-in",
      "/sign-in?back=%2Fjobs",
      "/icon.svg",
      "/_next/static/chunks/a.js",
      "/agent.mjs",
      "/agent.mjs.sha256",
      "/shared/x",
    ])
      expect([url, ask({ url })]).toEqual([url, "pass"]);
    for (const url of [
      "/shared",
      "/shared/x/y",
      "/shared/..;",
      "/shared/x.y",
      "/sign-in/x",
      "/SIGN-IN",
      "/icon.svg.",
      "/_next/static/chunks/b.js",
      "/ocr/worker.js",
      "/sign-in;/jobs",
    ])
      expect([url, ask({ url })]).toEqual([url, "sign in"]);
    for (const [path, who] of Object.entries(pages))
      expect([path, ask({ url: pathOf(path) })]).toEqual([path, who === "anybody" ? "pass" : "sign in"]);
    for (const { method, path, who } of endpointList)
      expect([path, ask({ method, url: `/api/v1${pathOf(path)}` })]).toEqual([
        path,
        who === "anybody" ? "pass" : 401,
      ]);
    expect(ask({ url: "/api/v1/nowhere" })).toBe(401);
  });
  it("refuses what isn't written as the URL standard writes it, whoever asks", () => {
    for (const who of [null, person("tunes")])
      for (const url of [
        "/shared/../jobs",
        "/_next/static/%2e%2e/%2e%2e/jobs",
        "/%",
        "http://x/jobs",
        "/icon.svg/..%2fjobs",
      ])
        expect([url, ask({ url }, who)]).toEqual([url, 400]);
  });
  it("pages are read, endpoints take their own methods, nothing else", () => {
    const ida = person("tunes");
    expect(ask({ url: "/jobs", method: "HEAD" }, ida)).toBe("pass");
    for (const method of ["POST", "PUT", "DELETE", "TRACE", "OPTIONS", "QUERY"])
      expect([method, ask({ url: "/jobs", method }, ida)]).toEqual([method, 405]);
    expect(passage({ method: "TRACE", url: "/api/v1/jobs", headers: {} }, ida, files)).toMatchObject({
      status: 405,
      allow: "GET, HEAD, POST",
    });
    expect(ask({ url: "/api/v1/nowhere" }, ida)).toBe(404);
    expect(ask({ url: "/_next/image?url=x" }, ida)).toBe(404);
    expect(ask({ url: "/jobs", method: "POST" })).toBe(401);
  });
  it("a body where none belongs is refused; a small one that a client sends to every endpoint is left alone", () => {
    const ida = person("tunes");
    const url = `/api/v1${pathOf("/jobs/{id}/copy")}`;
    expect(ask({ url: "/jobs", headers: { "content-length": "5" } }, ida)).toBe(400);
    expect(ask({ url: "/api/v1/jobs", headers: { "transfer-encoding": "chunked" } }, ida)).toBe(400);
    expect(ask({ url, method: "POST", headers: { "content-length": "1024" } }, ida)).toBe("pass");
    expect(ask({ url, method: "POST", headers: { "content-length": "1025" } }, ida)).toBe(400);
    expect(ask({ url, method: "POST", headers: { "transfer-encoding": "chunked" } }, ida)).toBe(400);
    expect(ask({ url: "/api/v1/jobs", method: "POST", headers: { "content-length": "3" } }, ida)).toBe("pass");
  });
  it("a program for the application's figures alone sees no page", () => {
    expect(ask({ url: "/jobs" }, program("metrics"))).toBe("sign in");
    expect(ask({ url: "/api/v1/metrics" }, program("metrics"))).toBe("pass");
  });
  it("drops headers that a framework or a proxy would take an address, a route or a caller from", () => {
    const known = { host: "x", cookie: "a=1", "sec-fetch-site": "none", "if-match": '"1"', rsc: "1" };
    const headers = {
      ...known,
      "x-lamp-caller": "x",
      "x-middleware-subrequest": "src/proxy:src/proxy",
      "x-rewrite-url": "/jobs",
      "x-original-url": "/jobs",
      "x-forwarded-host": "x",
      "x-matched-path": "/jobs",
      "x-invoke-path": "/jobs",
      "next-action": "x",
    };
    dropForeignHeaders(headers);
    expect(headers).toEqual(known);
  });
});
