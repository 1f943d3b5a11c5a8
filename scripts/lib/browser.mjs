// How Debian's Chromium is started here; shared by tests, pictures and benchmarks.
import { ensureChromium } from "./install.mjs";

const flags = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

export const launchOptions = () => ({ executablePath: ensureChromium(), args: flags });
