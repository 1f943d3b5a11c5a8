// How Debian's Chromium is started here; shared by tests, pictures and benchmarks.
import { chromiumPath, ensureChromium } from "./install.mjs";

const flags = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

/** What is missing was installed when the script began: here it is only found, as every worker asks anew. */
export const launchOptions = () => ({ executablePath: chromiumPath() ?? ensureChromium(), args: flags });
