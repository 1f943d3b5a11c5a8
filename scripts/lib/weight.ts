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
  /** Addresses of text over 1 kB that came as it is. */
  uncompressed: string[];
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

const isText = /^text\/(?!event-stream)|javascript|json|svg/;
/** Text no longer than this with its head isn't compressed, bytes. */
const mostPlain = 1500;
/** Quiet for so long, a page has fetched what it wants by itself, ms. */
const quietMs = 700;
/** A page that fetches for so long is weighed as far as it came, ms. */
const mostMs = 10_000;

/** Notes when a page could be used, and when its trace was drawn; as text, since it runs in the page. */
const noteTimes = `
  const times = (window.lampTimes = {});
  const wanted = { usable: "[data-ready]", traced: "[data-testid=trace][data-drawn=yes]" };
  new MutationObserver(() => {
    for (const [name, selector] of Object.entries(wanted))
      if (times[name] === undefined && document.querySelector(selector)) times[name] = performance.now();
  }).observe(document, {
    attributes: true,
    attributeFilter: ["data-ready", "data-drawn"],
    childList: true,
    subtree: true,
  });
`;

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
    const plain = new Map<string, string>();
    const bytes = new Map<string, number>();
    const begun = new Map<string, number>();
    const open = new Set<string>();
    let last = Date.now();
    protocol.on("Network.requestWillBeSent", ({ requestId, type }) => {
      // What tells of changes stays open as long as the page does.
      if (type === "EventSource") return;
      begun.set(requestId, Date.now());
      open.add(requestId);
      last = Date.now();
    });
    protocol.on("Network.responseReceived", ({ requestId, type, response }) => {
      kinds.set(requestId, type);
      if (isText.test(response.mimeType) && !/content-encoding/i.test(Object.keys(response.headers).join(" ")))
        plain.set(requestId, response.url);
    });
    const ended = ({ requestId, encodedDataLength = 0 }: { requestId: string; encodedDataLength?: number }) => {
      bytes.set(requestId, encodedDataLength);
      open.delete(requestId);
      last = Date.now();
    };
    protocol.on("Network.loadingFinished", ended);
    protocol.on("Network.loadingFailed", ended);
    await page.addInitScript(noteTimes);
    await page.goto(address, { waitUntil: "commit" });
    await page.locator("[data-ready], form h1").first().waitFor({ state: "attached" });
    const began = Date.now();
    // What a worker thread fetches is begun here and ends there: it holds up no page.
    const isUnderWay = (id: string) => kinds.has(id) || Date.now() - (begun.get(id) ?? 0) < quietMs;
    while ([...open].some(isUnderWay) || Date.now() - last < quietMs) {
      if (Date.now() - began > mostMs) break;
      await page.waitForTimeout(50);
    }
    const times = await page.evaluate(() => (window as { lampTimes?: Record<string, number> }).lampTimes ?? {});
    const sum = (kind: string | null) =>
      [...bytes].reduce((total, [id, each]) => total + (kind === null || kinds.get(id) === kind ? each : 0), 0);
    return {
      scripts: sum("Script"),
      styles: sum("Stylesheet"),
      page: sum("Document"),
      all: sum(null),
      requests: bytes.size,
      uncompressed: [...plain].flatMap(([id, url]) => ((bytes.get(id) ?? 0) > mostPlain ? [url] : [])),
      usable: times.usable ?? Number.NaN,
      traced: times.traced ?? null,
    };
  } finally {
    await context.close();
  }
}
