import { chromium, expect, test } from "@playwright/test";
import { launchOptions } from "../scripts/lib/browser.mjs";
import { weigh } from "../scripts/lib/weight";
import { demoJob } from "./support";

/** Scripts of a first load as they are sent, headers included, bytes at most. */
const most = 200_000;
const mostSignIn = 130_000;
/** A page as it is sent, bytes at most. */
const mostPage = 150_000;

test("pages carry no more scripts at first than they may, and all text is compressed", async ({
  request,
  baseURL,
}) => {
  test.setTimeout(180_000);
  const job = await demoJob(request, "Copper Regatta");
  const { trials } = await (await request.get(`/api/v1/jobs/${job}`)).json();
  const routes = [
    ["/", most],
    [`/jobs/${job}`, most],
    [`/jobs/${job}/trials/${trials[0].id}`, most],
    [`/jobs/${job}/runs/new`, most],
    ["/board", most],
    ["/sign-in", mostSignIn],
  ] as const;
  const browser = await chromium.launch(launchOptions());
  try {
    for (const [path, limit] of routes) {
      const { scripts, page, uncompressed } = await weigh(browser, `${baseURL}${path}`);
      expect(scripts, `scripts of ${path}`).toBeLessThanOrEqual(limit);
      expect(scripts, `scripts of ${path} were seen`).toBeGreaterThan(50_000);
      expect(page, `the page ${path}`).toBeLessThanOrEqual(mostPage);
      expect(uncompressed, `text of ${path}`).toEqual([]);
    }
  } finally {
    await browser.close();
  }
});
