import { defineConfig } from "@playwright/test";
import { launchOptions } from "./scripts/lib/browser.mjs";

/** Run by `npm test`, which starts the built application and names it in LAMP_ADDRESS. */
export default defineConfig({
  testDir: "e2e",
  workers: 1,
  // Two lanes share the machine: what fails once beside the other is tried once more, and told as such.
  retries: 1,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: [["list"], ["json"]],
  use: {
    baseURL: process.env.LAMP_ADDRESS,
    viewport: { width: 1280, height: 800 },
    launchOptions: launchOptions(),
    screenshot: "only-on-failure",
  },
});
