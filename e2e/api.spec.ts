import { spawnSync } from "node:child_process";
import { expect, test, type APIRequestContext, type APIResponse } from "@playwright/test";
import { freshJob, demoJob } from "./support";

/** The header that says which version an edit saw: the one there is now. */
const seen = async (request: APIRequestContext, path: string) => {
  const view = await (await request.get(`/api/v1/${path}`)).json();
  return { "if-match": `"${view.version ?? view.trial.version}"` };
};

// The endpoints themselves: what is answered, what is refused, in which words.
const nobody = "00000000-0000-4000-8000-000000000000";

async function problem(
  answer: Awaited<ReturnType<APIRequestContext["get"]>>,
  status: number,
): Promise<{ title: string; detail: string; fields: Record<string, string> }> {
  expect(answer.status()).toBe(status);
  expect(answer.headers()["content-type"]).toContain("application/problem+json");
  const body = (await answer.json()) as { title: string; detail: string; fields: Record<string, string> };
  // RFC 9457: type, title, status, detail.
  expect(body).toMatchObject({
    type: "about:blank",
    status,
    title: expect.any(String),
    detail: expect.any(String),
  });
  expect(body.title).not.toBe("");
  expect(body.detail).not.toBe("");
  return body;
}

const rig = {
  name: "Api Rig",
  spec: {
    kind: "board",
    processor: { clusters: [{ cores: 4, baseGhz: 1, boostGhz: 2 }] },
    graphics: { units: null, clockGhz: null },
    memoryGb: 4,
    storage: "",
    system: { version: "", date: null },
    driver: { version: "", date: null },
    displays: [
      { name: "HDMI", connection: "cable", width: 1920, height: 1080, refreshHz: [60], diagonalInch: null },
    ],
    powerModes: [{ name: "mains", watts: 15, use: "any" }],
    clockOptions: [],
    cooling: { kind: "fan", coolerToHand: false },
    batteryWh: null,
    temperatureLimitC: 85,
  },
};

test.describe("what is not there", () => {
  for (const path of [
    `jobs/${nobody}`,
    "jobs/not-an-id",
    `runs/${nobody}/trace`,
    `engines/${nobody}/catalogue`,
  ]) {
    test(`GET ${path} is 404 in words`, async ({ request }) => {
      await problem(await request.get(`/api/v1/${path}`), 404);
    });
  }
  for (const [method, path] of [
    ["put", `rigs/${nobody}`],
    ["put", `titles/${nobody}`],
    ["put", `engines/${nobody}`],
    ["delete", `preflight/${nobody}`],
    ["post", `rigs/${nobody}/duplicate`],
  ] as const) {
    test(`${method} ${path} is refused and changes nothing`, async ({ request }) => {
      const answer = await request[method](`/api/v1/${path}`, {
        headers: { "if-match": '"1"' },
        data: path.startsWith("rigs") ? rig : {},
      });
      expect([404, 422]).toContain(answer.status());
      await problem(answer, answer.status());
    });
  }
});

test.describe("bodies that can't be", () => {
  for (const path of ["rigs", "titles", "systems", "engines", "jobs", "tallies", "house-rules", "preflight"]) {
    test(`POST ${path}: nothing, no JSON, a list, a wrong type`, async ({ request }) => {
      const post = (data: string) =>
        request.post(`/api/v1/${path}`, {
          headers: { "content-type": "application/json" },
          data: Buffer.from(data),
        });
      await problem(await post("{"), 400);
      await problem(await post("[]"), 422);
      await problem(await post("null"), 422);
      await problem(await post('{"name": 7}'), 422);
    });
  }

  test("more than two megabytes of JSON is refused by size", async ({ request }) => {
    await problem(await request.post("/api/v1/rigs", { data: { name: "x".repeat(3 * 1024 * 1024) } }), 413);
  });

  test("a body is refused by what it holds, before it is read, and whoever sends it hears so", async ({
    request,
  }) => {
    const sent = async (data: string, path = "titles") =>
      request.post(`/api/v1/${path}`, {
        headers: { "content-type": "application/json" },
        data: Buffer.from(data),
      });
    const many = (count: number, of: string) => Array<string>(count).fill(of).join(",");
    const titleOf = async (response: APIResponse) => ((await response.json()) as { title: string }).title;
    const lists = await sent(`{"name":[${many(600_000, "[]")}]}`);
    expect(lists.status()).toBe(413);
    expect(await titleOf(lists)).toBe("The request holds more than 50,000 values.");
    const names = await sent(`{${Array.from({ length: 30_000 }, (_, k) => `"k${k}":1`).join(",")}}`);
    expect(await titleOf(names)).toBe("The request holds more than 20,000 names.");
    const deep = await sent("[".repeat(900_000));
    expect([deep.status(), await titleOf(deep)]).toEqual([422, "The request is nested more than 64 deep."]);
    // As large an endpoint's own bounds: a publication is read aside, and refused by its schema.
    const cells = await sent(
      JSON.stringify({ from: "somebody", publication: { tables: Array(60_000).fill("x") } }),
      "others",
    );
    expect(cells.status()).toBe(422);
    // Each wrong figure of a hundred thousand isn't named.
    const wrong = await sent(
      `{"role":"trace","sequence":0,"values":[${many(120_000, "null")}]}`,
      `runs/${crypto.randomUUID()}/pieces`,
    );
    expect(wrong.status()).toBe(422);
    expect((await wrong.text()).length).toBeLessThan(2000);
  });

  test("a trace that is none is refused, and no run is left", async ({ request }) => {
    const job = await demoJob(request, "Paper Lighthouse");
    const count = async () => (await (await request.get(`/api/v1/jobs/${job}`)).json()).runs.length;
    const before = await count();
    for (const bytes of [
      Buffer.alloc(0),
      Buffer.from("text"),
      Buffer.alloc(64, 255),
      Buffer.concat([Buffer.from([2, 0, 0, 0]), Buffer.from("{}"), Buffer.alloc(2)]),
    ]) {
      await problem(
        await request.post("/api/v1/runs", {
          headers: { "content-type": "application/octet-stream" },
          data: bytes,
        }),
        422,
      );
    }
    expect(await count()).toBe(before);
  });

  test("every fault of a rig is named with its field", async ({ request }) => {
    const answer = await request.post("/api/v1/rigs", {
      data: {
        name: "",
        spec: { ...rig.spec, memoryGb: -1, displays: [{ ...rig.spec.displays[0], width: 0 }] },
      },
    });
    const { fields } = await problem(answer, 422);
    expect(Object.keys(fields).sort()).toEqual(["name", "spec.displays.0.width", "spec.memoryGb"]);
  });
});

test.describe("a rig through its life", () => {
  test("added, refused twice, revised, duplicated, retired, brought back", async ({ request }) => {
    const made = await request.post("/api/v1/rigs", { data: rig });
    expect(made.status()).toBe(201);
    const { id } = await made.json();
    const twin = await problem(await request.post("/api/v1/rigs", { data: { ...rig, name: "API RIG" } }), 409);
    expect(twin.fields.name).toContain("already");

    const revised = await request.put(`/api/v1/rigs/${id}`, {
      headers: await seen(request, `rigs/${id}`),
      data: { ...rig, spec: { ...rig.spec, driver: { version: "2", date: "2026-10-01" } }, note: "driver 2" },
    });
    expect(await revised.json()).toEqual({ revision: 2 });
    const copy = await (await request.post(`/api/v1/rigs/${id}/duplicate`)).json();
    expect(copy.id).not.toBe(id);

    const retired = await request.patch("/api/v1/rigs", { data: { ids: [id, copy.id], retired: true } });
    expect(await retired.json()).toEqual({ changed: 2 });
    const bench = await (await request.get("/api/v1/bench")).json();
    expect(bench.rigs.map(({ name }: { name: string }) => name)).not.toContain("Api Rig");
    await request.patch("/api/v1/rigs", { data: { ids: [id], retired: false } });
    const again = await (await request.get("/api/v1/bench")).json();
    expect(again.rigs.map(({ name }: { name: string }) => name)).toContain("Api Rig");
    await request.patch("/api/v1/rigs", { data: { ids: [id], retired: true } });
  });
});

test.describe("other sites and odd hosts", () => {
  for (const origin of [
    "http://elsewhere.invalid",
    "https://127.0.0.1.elsewhere.invalid",
    "http://localhost:1",
  ]) {
    test(`a write from ${origin} is refused`, async ({ request }) => {
      await problem(
        await request.put("/api/v1/bench", { headers: { origin, "if-match": '"1"' }, data: {} }),
        403,
      );
    });
  }

  test("a page's own writes are taken", async ({ request, baseURL }) => {
    expect(
      (
        await request.put("/api/v1/bench", {
          headers: { origin: baseURL!, ...(await seen(request, "bench")) },
          data: {},
        })
      ).status(),
    ).toBe(200);
  });

  test("every answer says what it is and may be shown by no other site; a body that isn't called JSON is refused", async ({
    request,
  }) => {
    for (const path of ["bench", "jobs", "nowhere"]) {
      const headers = (await request.get(`/api/v1/${path}`)).headers();
      expect(headers["x-content-type-options"]).toBe("nosniff");
      expect(headers["cross-origin-resource-policy"]).toBe("same-origin");
      expect(headers["content-security-policy"]).toBe("default-src 'none'; frame-ancestors 'none'");
      expect(headers["x-request-id"]).toMatch(/^[0-9a-f-]{36}$/);
    }
    const form = await request.post("/api/v1/jobs", {
      headers: { "content-type": "text/plain" },
      data: '{"titleId": 1}',
    });
    expect(form.status()).toBe(415);
  });

  test("health says versions and migrations; metrics count what was asked, in the open text format", async ({
    request,
  }) => {
    const health = await (await request.get("/api/v1/health")).json();
    expect(health).toMatchObject({ application: "velvet-lamp", live: true, ready: true });
    expect(health.migrations.done).toBe(health.migrations.known);
    const metrics = await request.get("/api/v1/metrics");
    expect(metrics.headers()["content-type"]).toContain("text/plain");
    expect(await metrics.text()).toMatch(
      /^lamp_requests_total\{endpoint="viewHealth",status="200"\} [1-9]\d*$/m,
    );
  });

  test("answers are not kept by caches, and name no server software", async ({ request }) => {
    const headers = (await request.get("/api/v1/bench")).headers();
    expect(headers["cache-control"]).toBe("no-store");
    expect(headers["x-powered-by"]).toBeUndefined();
  });

  test("every page refuses to be framed, sniffed or scripted from outside", async ({ request }) => {
    for (const path of ["/", "/jobs", "/kit/rigs", "/kit/planner", "/nowhere"]) {
      const headers = (await request.get(path)).headers();
      expect(headers["x-frame-options"]).toBe("DENY");
      expect(headers["x-content-type-options"]).toBe("nosniff");
      expect(headers["content-security-policy"]).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
    }
  });

  test("nonces are never the same twice", async ({ request }) => {
    const nonce = async () =>
      /nonce-([^']+)/.exec((await request.get("/")).headers()["content-security-policy"])![1];
    expect(await nonce()).not.toBe(await nonce());
  });
});

test.describe("files in and out", () => {
  test("the catalogue's schema is published, and an exported catalogue comes back in", async ({ request }) => {
    const schema = await (await request.get("/api/v1/catalogue-schema")).json();
    expect(schema).toMatchObject({ $schema: "https://json-schema.org/draft/2020-12/schema", type: "object" });
    const { rows } = await (await request.get("/api/v1/jobs")).json();
    const { engineId } = rows.find(({ title }: { title: string }) => title === "Basalt Choir");
    const out = await request.get(`/api/v1/engines/${engineId}/catalogue`);
    expect(out.headers()["content-disposition"]).toBe('attachment; filename="sallow-catalogue.json"');
    const back = await request.put(`/api/v1/engines/${engineId}/catalogue`, { data: await out.text() });
    expect(back.ok()).toBe(true);
    expect(await (await request.get(`/api/v1/engines/${engineId}/catalogue`)).json()).toEqual(await out.json());
  });

  test("a trace is read back as it was kept", async ({ request }) => {
    const { runs } = await (
      await request.get(`/api/v1/jobs/${await demoJob(request, "Copper Regatta")}`)
    ).json();
    const bytes = await (await request.get(`/api/v1/runs/${runs[0].id}/trace`)).body();
    const header = JSON.parse(bytes.subarray(4, 4 + bytes.readUInt32LE(0)).toString("utf8"));
    expect(header).toMatchObject({ form: "frames", length: runs[0].summary.frames });
    expect(header.channels.map(({ role }: { role: string }) => role).sort()).toEqual([
      "cpu",
      "cpuBusiest",
      "cpuClock",
      "gpu",
      "gpuClock",
      "memory",
      "speed",
      "temperature",
      "watts",
    ]);
    expect(header.marks.map(({ label }: { label: string }) => label)).toEqual(["harbour", "the lock gates"]);
  });
});

test.describe("trials, decisions and faults by the API", () => {
  const plan = { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] };
  const arm = (name: string, settings: object, more: object = {}) => ({
    name,
    settings,
    conditions: {},
    buildId: null,
    level: null,
    ...more,
  });

  test("a trial's outcome is computed when asked for, and nothing is decided by asking", async ({
    request,
  }) => {
    const { rows } = await (await request.get("/api/v1/jobs?search=Quiet")).json();
    const job = rows.at(-1).id;
    const { trials } = await (await request.get(`/api/v1/jobs/${job}`)).json();
    const answer = await request.get(`/api/v1/trials/${trials[0].id}/outcome`);
    expect(answer.status()).toBe(200);
    const outcome = await answer.json();
    expect(outcome.pairs[0].ratio).toBeGreaterThan(1);
    expect(outcome.advice.sentence).toMatchObject({
      code: expect.stringMatching(/^compare\./),
      words: expect.stringMatching(/%/),
    });
    const { trial } = await (await request.get(`/api/v1/trials/${trials[0].id}`)).json();
    expect(trial.decidedAt).toBeNull();
  });

  test("another level is added to a sweep, once, and not after its decision", async ({ request }) => {
    const { rows } = await (await request.get("/api/v1/jobs?search=Basalt")).json();
    const { rigId, titleId, buildId, houseRulesId } = rows.at(-1);
    const { id: jobId } = await (
      await request.post("/api/v1/jobs", {
        data: { rigId, titleId, buildId, houseRulesId, aim: "speed", targetFps: null },
      })
    ).json();
    const made = await request.post("/api/v1/trials", {
      data: {
        jobId,
        kind: "resolution",
        name: "Scales",
        rounds: 1,
        cold: false,
        plan: { ...plan, keys: ["scale"] },
        arms: [arm("×1", { scale: 1 }, { level: 1 }), arm("×2", { scale: 2 }, { level: 2 })],
      },
    });
    const { id } = await made.json();
    const more = arm("×3", { scale: 3 }, { level: 3 });
    expect(
      (
        await request.patch(`/api/v1/trials/${id}`, {
          headers: await seen(request, `trials/${id}`),
          data: { arm: more },
        })
      ).status(),
    ).toBe(200);
    expect((await (await request.get(`/api/v1/trials/${id}`)).json()).trial.arms).toHaveLength(3);
    const twice = await request.patch(`/api/v1/trials/${id}`, {
      headers: await seen(request, `trials/${id}`),
      data: { arm: more },
    });
    expect(twice.status()).toBe(422);
    expect((await twice.json()).title).toContain("already");
    const bad = await request.patch(`/api/v1/trials/${id}`, {
      headers: await seen(request, `trials/${id}`),
      data: { rounds: 0 },
    });
    expect(bad.status()).toBe(422);
  });

  test("writes from another site are refused at every new endpoint", async ({ request }) => {
    const headers = { origin: "http://elsewhere.invalid" };
    const id = "00000000-0000-4000-8000-000000000000";
    for (const [method, path] of [
      ["post", "trials"],
      ["patch", `trials/${id}`],
      ["post", `trials/${id}/decision`],
      ["delete", `trials/${id}/decision`],
      ["post", "faults"],
      ["delete", `faults/${id}`],
      ["post", `jobs/${id}/closing`],
      ["delete", `jobs/${id}/closing`],
      ["patch", `jobs/${id}`],
    ] as const) {
      const answer = await request[method](`/api/v1/${path}`, { headers, data: {} });
      expect([path, answer.status()]).toEqual([path, 403]);
    }
  });

  test("what isn't there is said to be missing", async ({ request }) => {
    const id = "00000000-0000-4000-8000-000000000000";
    for (const path of [`trials/${id}`, `trials/${id}/outcome`, `jobs/${id}/diagnosis?run=${id}`]) {
      const answer = await request.get(`/api/v1/${path}`);
      expect([path, answer.status()]).toEqual([path, 404]);
      expect(answer.headers()["content-type"]).toContain("application/problem+json");
    }
    expect((await request.delete(`/api/v1/faults/${id}`)).status()).toBe(404);
    expect(
      (
        await request.patch(`/api/v1/jobs/${id}`, {
          headers: { "if-match": '"1"' },
          data: { strategy: "climb" },
        })
      ).status(),
    ).toBe(404);
    expect(
      (
        await request.patch(`/api/v1/jobs/${id}`, {
          headers: { "if-match": '"1"' },
          data: { strategy: "leap" },
        })
      ).status(),
    ).toBe(422);
  });

  test("script in a name or a note is shown as text", async ({ page, request }) => {
    const { rows } = await (await request.get("/api/v1/jobs?search=Kite")).json();
    const { rigId, titleId, buildId, houseRulesId } = rows.at(-1);
    const { id: jobId } = await (
      await request.post("/api/v1/jobs", {
        data: { rigId, titleId, buildId, houseRulesId, aim: "speed", targetFps: null },
      })
    ).json();
    const name = "<img src=x onerror=window.broken=true>";
    const { id } = await (
      await request.post("/api/v1/trials", {
        data: {
          jobId,
          kind: "compare",
          name,
          rounds: 1,
          cold: false,
          plan,
          arms: [arm("a", {}), arm("<b>b</b>", { smoothing: "none" })],
        },
      })
    ).json();
    await page.goto(`/jobs/${jobId}/trials/${id}`);
    await expect(page.getByRole("heading", { level: 1 })).toHaveText(name);
    await expect(page.getByRole("table", { name: "Arms" })).toContainText("<b>b</b>");
    expect(await page.evaluate(() => "broken" in window)).toBe(false);
  });
});

test("the command brings a log into a job by the same endpoints, and says in one line what is in its way", async ({
  request,
  baseURL,
}) => {
  test.setTimeout(60_000);
  const lamp = (...args: string[]) => {
    const told = spawnSync("npm", ["run", "-s", "lamp", "--", ...args, "--address", baseURL ?? ""], {
      encoding: "utf8",
    });
    const [problem] = told.stderr.split("\n").filter((line) => line.startsWith("lamp: "));
    return { status: told.status, out: told.stdout, problem };
  };
  // A new job puts its rig on the bench.
  const own = await freshJob(request, "Quiet Machines");
  const { rig } = await (await request.get("/api/v1/bench")).json();
  const jobs = JSON.parse(lamp("jobs", "--open", "--json").out).rows as { id: string; rigId: string }[];
  const other = jobs.find(({ rigId }) => rigId !== rig.id)!;
  const file = "samples/scale-2-uncapped.csv";
  const kept = lamp("keep", file, "--job", own, "--cache", "warm", "--json");
  expect(kept).toMatchObject({ status: 0, problem: undefined });
  const run = JSON.parse(kept.out);
  const view = await (await request.get(`/api/v1/jobs/${own}`)).json();
  const alone = JSON.parse(
    spawnSync("npm", ["run", "-s", "lamp", "--", "analyse", file, "--json"], { encoding: "utf8" }).stdout,
  );
  expect(view.runs).toMatchObject([{ id: run.id, number: 1, cacheState: "warm", source: "log" }]);
  expect(view.runs[0].summary.averageFps).toBeCloseTo(alone.averageFps, 3);
  // The same file again is refused as the pages refuse it.
  expect(lamp("keep", file, "--job", own)).toMatchObject({
    status: 2,
    problem: expect.stringMatching(/^lamp: This file is run 1 of this job already\./),
  });
  expect(lamp("keep", file, "--job", other.id)).toMatchObject({
    status: 2,
    problem: expect.stringMatching(/isn't on the bench/),
  });
  expect(lamp("keep", file, "--job", nobody).status).toBe(2);
  expect(lamp("keep", file, "--job", own, "--trial", nobody).problem).toMatch(/has no trial/);
});
