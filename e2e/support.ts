import { expect, type APIRequestContext, type Page } from "@playwright/test";

/** Ids by name, from the application's own answers. */
export async function kitOf(request: APIRequestContext) {
  const { rows } = await (await request.get("/api/v1/jobs")).json();
  return {
    job: (title: string): string => rows.find((row: { title: string }) => row.title === title).id,
  };
}

/** A job of its own on the rig of another, so that tests don't lean on one another's runs. */
export async function freshJob(request: APIRequestContext, like: string, changes: Record<string, unknown> = {}): Promise<string> {
  const { rows } = await (await request.get("/api/v1/jobs")).json();
  const { rigId, titleId, buildId, houseRulesId } = rows.find((row: { title: string }) => row.title === like);
  const made = await request.post("/api/v1/jobs", { data: { rigId, titleId, buildId, houseRulesId, aim: "speed", targetFps: null, ...changes } });
  expect(made.status()).toBe(201);
  return (await made.json()).id;
}

/** Opens a page and waits until its keys and buttons are alive. */
export async function open(page: Page, path: string) {
  await page.goto(path);
  await page.locator("[data-ready]").waitFor();
}

/** Chooses a log on the new-run screen. */
export async function choose(page: Page, name: string, content: string | Buffer) {
  await page.getByLabel("Log file").setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(content) });
}
