import { expect, test, type Browser } from "@playwright/test";
import { findings } from "./findings";
import { endpointList } from "@/contract";
import { ownAddresses } from "../scripts/lib/access.mjs";
import { stopServer, type Server } from "../scripts/lib/application.mjs";
import { letPeopleIn, people, startShared } from "./shared";

/* An application that answers more than its own machine: over HTTPS, to whoever was let in. */

let server: Server;
let base = "";

test.beforeAll(async () => {
  const url = process.env.LAMP_TEST_DATABASE ?? "";
  for (const said of letPeopleIn(url)) expect(said).toContain("may read");
  ({ server, base } = await startShared(url, 3710));
});
test.afterAll(async () => stopServer(server));

const visitor = async (browser: Browser) =>
  browser.newContext({ baseURL: base, ignoreHTTPSErrors: true, viewport: { width: 1280, height: 800 } });

async function signedIn(browser: Browser, name: keyof typeof people) {
  const context = await visitor(browser);
  const page = await context.newPage();
  await page.goto("/jobs");
  await page.getByLabel("Name").fill(name);
  await page.getByLabel("Passphrase").fill(people[name]);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
  await page.locator("[data-ready]").waitFor();
  return { context, page };
}

test("whoever hasn't signed in gets no page, no endpoint and no file but the way in", async ({ browser }) => {
  const context = await visitor(browser);
  for (const path of ["/", "/jobs", "/kit/people", "/kit/workshop", "/ocr/worker.js"]) {
    const answer = await context.request.get(path, { maxRedirects: 0 });
    expect([path, answer.status(), answer.headers().location?.startsWith("/sign-in")]).toEqual([
      path,
      303,
      true,
    ]);
  }
  let asked = 0;
  for (const { id, method, path, who } of endpointList) {
    if (who === "anybody") continue;
    const answer = await context.request.fetch(`/api/v1${path.replaceAll(/\{\w+\}/g, "x")}`, {
      method,
      headers: { "content-type": "application/json" },
      ...(method === "GET" ? {} : { data: "{}" }),
    });
    expect([id, answer.status()]).toEqual([id, 401]);
    asked++;
  }
  expect(asked).toBeGreaterThan(90);
  const health = await (await context.request.get("/api/v1/health")).json();
  expect(health).toMatchObject({ live: true, ready: true, version: "", process: 0 });
  const forged = encodeURIComponent(
    JSON.stringify({ asker: { kind: "machine", name: "me", may: "tunes", id: "" }, address: "", secure: true }),
  );
  expect((await context.request.get("/api/v1/jobs", { headers: { "x-lamp-caller": forged } })).status()).toBe(
    401,
  );
  await context.close();
});

test("signing in leads back to where one was going; a wrong passphrase says so, and the page is clean of findings", async ({
  browser,
}) => {
  const context = await visitor(browser);
  const page = await context.newPage();
  await page.goto("/board?hardness=hard");
  await expect(page).toHaveURL(/\/sign-in\?back=/);
  expect(await findings(page)).toEqual([]);
  await page.getByLabel("Name").fill("Ida");
  await page.getByLabel("Passphrase").fill("not it");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert").first()).toContainText("isn't right");
  await page.getByLabel("Passphrase").fill(people.Ida);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page).toHaveURL(/\/board\?hardness=hard/);
  const [cookie] = (await context.cookies()).filter(({ name }) => name === "__Host-lamp");
  expect(cookie).toMatchObject({ httpOnly: true, secure: true, sameSite: "Strict", path: "/" });
  await page.getByRole("button", { name: "Ida, sign out" }).click();
  await expect(page).toHaveURL(/\/sign-in/);
  expect((await context.request.get("/api/v1/jobs")).status()).toBe(401);
  await context.close();
});

test("a way back that isn't ours isn't gone", async ({ browser }) => {
  const context = await visitor(browser);
  const page = await context.newPage();
  await page.goto("/sign-in?back=https://evil.example/");
  await page.getByLabel("Name").fill("Ida");
  await page.getByLabel("Passphrase").fill(people.Ida);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page).toHaveURL(`${base}/`);
  await context.close();
});

test("whoever may only read sees everything and changes nothing", async ({ browser }) => {
  const { context, page } = await signedIn(browser, "Bram");
  await expect(page.getByRole("button", { name: "Bram (reads), sign out" })).toBeVisible();
  expect((await context.request.get("/api/v1/jobs")).status()).toBe(200);
  const refused = await context.request.put("/api/v1/bench", { data: { jobId: null } });
  expect([refused.status(), (await refused.json()).title]).toEqual([403, "You may read here, not change."]);
  expect((await context.request.get("/api/v1/people")).status()).toBe(403);
  await context.close();
});

test("a token opens what it may and nothing after it is revoked; a link shows the board to anybody until it is", async ({
  browser,
}) => {
  const { context, page } = await signedIn(browser, "Ida");
  await page.goto("/kit/people");
  await page.locator("[data-ready]").waitFor();
  expect(await findings(page)).toEqual([]);
  await page.getByLabel("Program", { exact: true }).fill("a meter");
  await page.getByRole("button", { name: "Make a token" }).click();
  const token =
    (await page.getByRole("status").filter({ hasText: "lamp_program_" }).locator("p").last().textContent()) ??
    "";
  const stranger = await visitor(browser);
  const call = async (path: string) =>
    (await stranger.request.get(path, { headers: { authorization: `Bearer ${token}` } })).status();
  expect(await call("/api/v1/jobs")).toBe(200);
  expect(await call("/api/v1/people")).toBe(403);
  await page.getByRole("button", { name: "Revoke: a meter" }).click();
  await expect(page.getByRole("button", { name: "Revoke: a meter" })).toHaveCount(0);
  expect(await call("/api/v1/jobs")).toBe(401);

  await page.getByRole("button", { name: "Link to the board" }).click();
  const shown = page.getByRole("status").filter({ hasText: "/shared/" }).locator("p").last();
  const link = (await shown.textContent()) ?? "";
  expect(link).toContain(`${base}/shared/lamp_link_`);
  const seen = await stranger.newPage();
  await seen.goto(link);
  await expect(seen.getByRole("heading", { name: "Board" })).toBeVisible();
  expect(await seen.evaluate(() => document.querySelectorAll("form, input, iframe").length)).toBe(0);
  await page.getByRole("button", { name: "Revoke: The board" }).click();
  await expect(page.getByRole("button", { name: "Revoke: The board" })).toHaveCount(0);
  expect((await seen.goto(link))?.status()).toBe(404);
  await stranger.close();
  await context.close();
});

test("what somebody decides is kept under that name", async ({ browser }) => {
  const { context } = await signedIn(browser, "Ida");
  const { rows } = await (await context.request.get("/api/v1/jobs?filter=open")).json();
  for (const { id } of rows) {
    const view = await (await context.request.get(`/api/v1/jobs/${id}`)).json();
    const trial = view.trials.find((each: { decidedAt: unknown }) => each.decidedAt);
    if (!trial) continue;
    const headers = (version: number) => ({ "if-match": `"${version}"` });
    const undone = await context.request.delete(`/api/v1/trials/${trial.id}/decision`, {
      headers: headers(trial.version),
    });
    if (!undone.ok()) continue;
    const open = (await (await context.request.get(`/api/v1/trials/${trial.id}`)).json()).trial;
    const again = await context.request.post(`/api/v1/trials/${trial.id}/decision`, {
      headers: headers(open.version),
      data: { choice: trial.choice, arm: trial.keptArm, reason: "As it was, tried by a test." },
    });
    expect(again.ok()).toBe(true);
    const after = (await (await context.request.get(`/api/v1/trials/${trial.id}`)).json()).trial;
    expect(after.decidedBy).toBe("Ida");
    await context.close();
    return;
  }
  throw new Error("No decided trial was there to decide again.");
});

test("under this machine's own addresses on its network pages are answered", async ({ browser }) => {
  const context = await visitor(browser);
  for (const address of ownAddresses().filter((each) => !each.includes(":"))) {
    const page = await context.newPage();
    const answer = await page.goto(base.replace("127.0.0.1", address));
    expect([address, answer?.status()]).toEqual([address, 200]);
    await expect(page.getByLabel("Passphrase")).toBeVisible();
    await page.close();
  }
  await context.close();
});

test("under a foreign name nothing is answered, whatever is asked for", async ({ browser }) => {
  const context = await visitor(browser);
  for (const path of [
    "/",
    "/sign-in",
    "/icon.svg",
    "/_next/static/x.js",
    "/ocr/worker.js",
    "/api/v1/health",
    "/shared/x",
  ])
    expect([path, (await context.request.get(path, { headers: { host: "lamp.invalid" } })).status()]).toEqual([
      path,
      421,
    ]);
  await context.close();
});
