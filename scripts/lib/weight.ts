// What a page weighs and how long it takes, as a browser without anything kept sees it: used by the benchmark and by
// the test that holds the limits.
import type { Browser } from "@playwright/test";

/** Bytes as they were sent, headers included, by what they are, and times from the start of the navigation. */
export interface Weight {
  scripts: number;
  styles: number;
  page: number;
  /** Everything, fonts and what is fetched later too. */
  all: number;
  requests: number;
  /** Until keys and buttons answer, ms. */
  usable: number;
  /** Until the trace is drawn, ms; null for a page without one. */
  traced: number | null;
}

export interface Profile {
  /** How many times slower the processor is. */
  slower: number;
  /** Null for a network that isn't held back. */
  network: { megabits: number; latencyMs: number } | null;
  viewport: { width: number; height: number };
}
export const desktop: Profile = { slower: 1, network: null, viewport: { width: 1280, height: 800 } };
/** A phone of four years ago on a slow network. */
export const phone: Profile = {
  slower: 4,
  network: { megabits: 10, latencyMs: 40 },
  viewport: { width: 390, height: 844 },
};

/** Quiet for so long, a page has fetched what it wants by itself, ms. */
const quietMs = 700;

/** Opens an address with nothing kept, and waits until it has fetched what it wants by itself. */
export async function weigh(browser: Browser, address: string, profile: Profile = desktop): Promise<Weight> {
  const context = await browser.newContext({ viewport: profile.viewport, serviceWorkers: "block" });
  try {
    const page = await context.newPage();
    const protocol = await context.newCDPSession(page);
    await protocol.send("Network.enable");
    await protocol.send("Network.setCacheDisabled", { cacheDisabled: true });
    if (profile.network)
      await protocol.send("Network.emulateNetworkConditions", {
        offline: false,
        latency: profile.network.latencyMs,
        downloadThroughput: (profile.network.megabits * 1e6) / 8,
        uploadThroughput: (profile.network.megabits * 1e6) / 8,
      });
    if (profile.slower > 1) await protocol.send("Emulation.setCPUThrottlingRate", { rate: profile.slower });
    const kinds = new Map<string, string>();
    const bytes = new Map<string, number>();
    const open = new Set<string>();
    let last = Date.now();
    protocol.on("Network.requestWillBeSent", ({ requestId }) => {
      open.add(requestId);
      last = Date.now();
    });
    protocol.on("Network.responseReceived", ({ requestId, type, response }) => {
      kinds.set(requestId, type);
      // What tells of changes stays open as long as the page does.
      if (response.mimeType === "text/event-stream") open.delete(requestId);
    });
    const ended = ({ requestId, encodedDataLength = 0 }: { requestId: string; encodedDataLength?: number }) => {
      bytes.set(requestId, encodedDataLength);
      open.delete(requestId);
      last = Date.now();
    };
    protocol.on("Network.loadingFinished", ended);
    protocol.on("Network.loadingFailed", ended);
    await page.addInitScript(() => {
      const times = ((window as { lampTimes?: Record<string, number> }).lampTimes = {} as Record<
        string,
        number
      >);
      const wanted = { usable: "[data-ready]", traced: "[data-testid=trace][data-drawn=yes]" };
      const look = () => {
        for (const [name, selector] of Object.entries(wanted))
          if (times[name] === undefined && document.querySelector(selector)) times[name] = performance.now();
      };
      new MutationObserver(look).observe(document, {
        attributes: true,
        attributeFilter: ["data-ready", "data-drawn"],
        childList: true,
        subtree: true,
      });
    });
    await page.goto(address, { waitUntil: "commit" });
    await page.locator("[data-ready]").first().waitFor({ state: "attached" });
    while (open.size > 0 || Date.now() - last < quietMs) await page.waitForTimeout(50);
    const times = await page.evaluate(() => (window as { lampTimes?: Record<string, number> }).lampTimes ?? {});
    const sum = (kind: string | null) =>
      [...bytes].reduce((total, [id, each]) => total + (kind === null || kinds.get(id) === kind ? each : 0), 0);
    return {
      scripts: sum("Script"),
      styles: sum("Stylesheet"),
      page: sum("Document"),
      all: sum(null),
      requests: bytes.size,
      usable: times.usable ?? Number.NaN,
      traced: times.traced ?? null,
    };
  } finally {
    await context.close();
  }
}
