import type { Page } from "@playwright/test";
import axe from "axe-core";

/**
 * What axe finds on the page as it is shown, a line each: the rule, and where.
 * @param within a part of the page; all of it otherwise
 * @param rules  those asked about; every one otherwise
 */
export async function findings(
  page: Page,
  { within, rules }: { within?: string; rules?: string[] } = {},
): Promise<string[]> {
  // Half a megabyte: brought to a page once.
  if (!(await page.evaluate(() => "axe" in globalThis))) await page.evaluate(axe.source);
  return page.evaluate(
    async ({ include, runOnly }) => {
      // A page within a page runs no script here; it is looked at by itself elsewhere.
      const { violations } = await (globalThis as unknown as { axe: typeof axe }).axe.run(
        { ...(include ? { include: [include] } : {}), exclude: ["iframe"] },
        { resultTypes: ["violations"], ...(runOnly ? { runOnly } : {}) },
      );
      return violations.map(
        ({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(" ")).join(" | ")}`,
      );
    },
    { include: within, runOnly: rules },
  );
}
