// Draws made-up captures with their truth beside them, in a browser without a window.
import { build } from "esbuild";
import { chromium } from "@playwright/test";
import { createServer } from "node:http";
import { join } from "node:path";
import { launchOptions } from "../lib/browser.mjs";
import { root } from "../lib/run.mjs";
import { seeded } from "../../src/core/stats/index";
import type { Drawing } from "./page";

/** What a made-up capture is measured against. */
export interface Truth {
  captureFps: number;
  shown: number[];
  frames: number;
  durationMs: number;
  averageFps: number;
  counter: [seconds: number, reading: number][];
}

/**
 * Captured frames a picture is shown for, at about some rate, uneven as titles are, with a freeze now and then.
 */
export function shownAt(
  fps: number,
  captureFps: number,
  seconds: number,
  seed: number,
  freezes = 0.004,
): number[] {
  const random = seeded(seed);
  const shown: number[] = [];
  let [captured, due] = [0, 0];
  while (captured < seconds * captureFps) {
    due +=
      (captureFps / fps) * Math.exp(0.12 * random.normal()) +
      (random.uniform() < freezes ? 0.25 * captureFps : 0);
    const frames = Math.max(1, Math.round(due - captured));
    shown.push(Math.min(frames, Math.ceil(seconds * captureFps) - captured));
    captured += frames;
  }
  return shown;
}

/** What an honest counter says: the rate of the half second before, twice a second. */
export function honest(shown: number[], captureFps: number): [number, number][] {
  const starts: number[] = [];
  let at = 0;
  for (const frames of shown) {
    starts.push(at / captureFps);
    at += frames;
  }
  return Array.from({ length: Math.floor((at / captureFps) * 2) }, (_, k): [number, number] => {
    const to = (k + 1) / 2;
    return [to, 2 * starts.filter((start) => start >= to - 0.5 - 1e-9 && start < to - 1e-9).length];
  });
}

export function truthOf({ captureFps, shown, readings }: Drawing): Truth {
  const captured = shown.reduce((sum, frames) => sum + frames, 0);
  const durationMs = (1000 * captured) / captureFps;
  return {
    captureFps,
    shown,
    frames: shown.length,
    durationMs,
    averageFps: (1000 * shown.length) / durationMs,
    counter: readings,
  };
}

/** Draws each and gives its bytes. */
export async function drawn(drawings: Drawing[]): Promise<Buffer[]> {
  const made = await build({
    entryPoints: [join(root, "scripts", "capture", "page.ts")],
    bundle: true,
    format: "iife",
    write: false,
    alias: { "@": join(root, "src") },
  });
  const server = createServer((request, response) =>
    request.url === "/page.js"
      ? response.setHeader("content-type", "text/javascript").end(made.outputFiles[0]!.text)
      : response.setHeader("content-type", "text/html").end("<!doctype html><script src=/page.js></script>"),
  );
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const browser = await chromium.launch(launchOptions());
  try {
    const page = await browser.newPage();
    await page.goto(`http://127.0.0.1:${(server.address() as { port: number }).port}/`);
    const files: Buffer[] = [];
    for (const drawing of drawings)
      files.push(
        Buffer.from(
          await page.evaluate(
            (of) => (globalThis as never as { draw: (of: unknown) => Promise<string> }).draw(of),
            drawing,
          ),
          "base64",
        ),
      );
    return files;
  } finally {
    await browser.close();
    server.close();
  }
}
