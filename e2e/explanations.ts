import { expect, type APIRequestContext, type Locator, type Page } from "@playwright/test";
import { demoJob, open } from "./support";

/**
 * Opens every explanation of the main pages and puts it away; no figure may stand without one.
 * @param reach opens the explanation of a name
 * @returns how many were opened
 */
export async function openExplanations(
  page: Page,
  request: APIRequestContext,
  reach: (name: Locator) => Promise<void>,
): Promise<number> {
  const copper = await demoJob(request, "Copper Regatta");
  const glass = await demoJob(request, "Glasshouse Duel");
  const { trials } = await (await request.get(`/api/v1/jobs/${glass}`)).json();
  const { rows: campaigns } = await (await request.get("/api/v1/campaigns")).json();
  let opened = 0;
  for (const path of [
    `/jobs/${copper}`,
    `/jobs/${glass}/trials/${trials[0].id}`,
    `/campaigns/${campaigns[0].id}`,
    "/profiles",
    "/log",
    "/look",
  ]) {
    await open(page, path);
    opened += await openIn(page, page.locator("#content"), reach);
    // On a phone what is read from a run lies in a sheet.
    const reading = page.getByRole("button", { name: "Reading", exact: true });
    if (!(await reading.isVisible())) continue;
    await reading.click();
    opened += await openIn(page, page.getByRole("dialog", { name: "Reading" }), reach);
  }
  return opened;
}

async function openIn(page: Page, part: Locator, reach: (name: Locator) => Promise<void>): Promise<number> {
  const names = part.locator("[data-explained]");
  let opened = 0;
  await part.waitFor();
  for (const figure of await part.locator("dl:has(dd.figure) > div > dt").all())
    await expect(figure.locator("[data-explained]")).toHaveCount(1);
  for (let at = 0; at < (await names.count()); at++) {
    const name = names.nth(at);
    // What lies in a part that is folded away is reached once that is open.
    if (!(await name.isVisible())) continue;
    await reach(name);
    const card = page.getByRole("dialog", { name: /^What “.*” is$/ });
    await expect(card).toContainText("How it is made.");
    await expect(card).toContainText("Source:");
    await expect(card.getByRole("figure")).toContainText("Example:");
    await page.keyboard.press("Escape");
    await expect(card).toBeHidden();
    await expect(name).toBeFocused();
    opened++;
  }
  return opened;
}
