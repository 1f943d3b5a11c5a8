import { expect, test } from "@playwright/test";
import { cluster } from "../scripts/lib/cluster.mjs";
import { open } from "./support";

// Last by its name: it takes the database away under the running application.
test("a dropped database is said to be one, and the screen comes back by itself", async ({ page }) => {
  const database = cluster(process.env.LAMP_TEST_CLUSTER!, { durable: false });
  await open(page, "/jobs");
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
  database.stop();
  await open(page, "/jobs");
  await expect(page.getByRole("main").getByRole("alert")).toContainText("The database can't be reached.");
  const refused = await page.request.put("/api/v1/bench", { headers: { "if-match": '"1"' }, data: {} });
  expect(refused.status()).toBe(503);
  await database.start();
  await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible({ timeout: 20_000 });
});
