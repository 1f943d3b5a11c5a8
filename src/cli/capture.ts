import { existsSync, readFileSync, statSync } from "node:fs";
import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import { createRequire } from "node:module";
import { basename, dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import type { Command } from "commander";
import type { CaptureResult, Region } from "@/core/capture";
import { lightWords } from "@/core/words";
import { BadInput, positive } from "./input";

interface Flags {
  box?: Region;
  mask: Region[];
  area?: Region;
  native: number;
  target?: number;
  free?: boolean;
  json?: boolean;
}

function regionIn(text: string): Region {
  const parts = text.split(",").map((part) => Number(part.trim()));
  const [x = NaN, y = NaN, w = NaN, h = NaN] = parts;
  if (parts.length !== 4 || !parts.every((part) => Number.isFinite(part) && part >= 0) || w < 1 || h < 1)
    throw new BadInput(`A region is X,Y,W,H in pixels of the picture, not "${text}".`);
  return { x, y, w, h };
}

/** Measures a capture by the code that the browser runs, in a browser without a window. */
export function capture(program: Command): void {
  program
    .command("capture <file>")
    .description("The frame times of a video of the screen: no logger needed.")
    .option("--box <x,y,w,h>", "where a counter's number stands", regionIn)
    .option(
      "--mask <x,y,w,h>",
      "left out; may be given again",
      (text: string, before: Region[]) => [...before, regionIn(text)],
      [],
    )
    .option("--area <x,y,w,h>", "the part that is watched", regionIn)
    .option("--native <fps>", "the title's own rate", positive("--native"), 60)
    .option("--target <fps>", "the rate wanted (default: the native rate)", positive("--target"))
    .option("--free", "the title's speed isn't tied to its rate")
    .option("--json", "one JSON object")
    .action(async (file: string, flags: Flags) => {
      if (!existsSync(file) || !statSync(file).isFile())
        throw new BadInput(`${file} can't be read: there is no such file.`);
      if (statSync(file).size === 0) throw new BadInput(`${file}: the file is empty.`);
      const result = await measured(file, flags);
      process.stdout.write(flags.json ? `${JSON.stringify(asJson(result))}\n` : page(basename(file), result));
    });
}

/** The object that `--json` prints. */
function asJson(result: CaptureResult) {
  const { counter, verdict, openBecause } = result;
  return {
    captureFps: result.captureFps,
    capturedFrames: result.capturedFrames,
    form: "captured",
    frames: result.frames,
    durationMs: result.durationMs,
    averageFps: result.averageFps,
    averageFpsInterval: result.averageFpsInterval,
    ceiling: result.ceiling,
    unsureFrames: result.unsureFrames,
    lostFrames: result.lostFrames,
    stillMs: result.stillMs,
    stampFaults: result.stampFaults,
    cutShort: result.cutShort,
    saidSeconds: result.saidSeconds,
    frameTimes: [...result.frameTimes],
    counter: counter && {
      readings: counter.readings,
      dropped: counter.dropped.length,
      averageFps: counter.averageFps,
    },
    counterDisagrees: result.counterDisagrees,
    foundCounter: result.foundCounter,
    verdict: {
      grade: verdict.grade,
      openBecause,
      reasons: verdict.reasons.map(({ rule, value, limit }) => ({ rule, value, limit })),
    },
  };
}

function page(name: string, result: CaptureResult): string {
  const { averageFps, averageFpsInterval: interval, captureFps, counter } = result;
  const rate = (fps: number) => fps.toFixed(2);
  const why = {
    ceiling: `nearly every captured picture is new: at least about ${rate(averageFps)} fps; capture faster to see more`,
    unsure: "too many pictures could be repeats or new ones",
    short: "too short to judge",
  };
  return [
    name,
    `  Captured     ${result.capturedFrames} pictures at ${rate(captureFps)} a second`,
    `  Shown        ${result.frames} over ${(result.durationMs / 1000).toFixed(1)} s; ${result.unsureFrames} unsure`,
    `  Average      ${rate(averageFps)} fps (${rate(interval[0])} to ${rate(interval[1])})`,
    ...(result.stillMs > 0
      ? [`  Still        ${(result.stillMs / 1000).toFixed(1)} s left out: nothing moves`]
      : []),
    ...(result.cutShort ? ["  Cut short    the file can't be read any further: measured up to there"] : []),
    ...(result.saidSeconds === null
      ? []
      : [
          `  Cut short    the file says it lasts ${result.saidSeconds.toFixed(1)} s, but its pictures end before: measured up to there`,
        ]),
    ...(counter
      ? [
          `  Counter      ${counter.averageFps === null ? "can't be read" : `${rate(counter.averageFps)} fps by ${counter.readings.length} readings, ${counter.dropped.length} dropped`}${result.counterDisagrees ? "; it disagrees with the pictures" : ""}`,
        ]
      : []),
    result.openBecause
      ? `  Verdict      open: ${why[result.openBecause]}`
      : `  Verdict      ${lightWords(result.verdict.grade).name}: ${lightWords(result.verdict.grade).meaning}`,
    "",
  ].join("\n");
}

const require = createRequire(import.meta.url);
const here = dirname(fileURLToPath(import.meta.url));
const folderOf = (name: string) => dirname(require.resolve(`${name}/package.json`));

/** The page's own program, made from the sources it shares with the application. */
async function bundled(): Promise<string> {
  const { build } = await import("esbuild");
  const made = await build({
    entryPoints: [join(here, "..", "workers", "capture", "alone.ts")],
    bundle: true,
    format: "iife",
    platform: "browser",
    write: false,
    logLevel: "silent",
    alias: { "@": join(here, "..") },
  });
  return made.outputFiles[0]?.text ?? "";
}

/**
 * Serves the page and text recognition, on this machine alone; the file is handed to the page where it lies.
 */
async function served(program: string): Promise<{ address: string; server: Server }> {
  const plain: Record<string, [type: string, path: string]> = {
    "/ocr/worker.js": ["text/javascript", join(folderOf("tesseract.js"), "dist", "worker.min.js")],
    "/ocr/language/eng.traineddata.gz": [
      "application/gzip",
      join(folderOf("@tesseract.js-data/eng"), "4.0.0_best_int", "eng.traineddata.gz"),
    ],
  };
  const answer = (request: IncomingMessage, response: ServerResponse) => {
    const path = (request.url ?? "/").split("?")[0] ?? "/";
    const [type, at] = plain[path] ?? coreFile(path);
    if (path === "/")
      return response
        .setHeader("content-type", "text/html")
        .end("<!doctype html><input type=file><script src=/program.js></script>");
    if (path === "/program.js") return response.setHeader("content-type", "text/javascript").end(program);
    if (at && existsSync(at)) return response.setHeader("content-type", type).end(readFileSync(at));
    return response.writeHead(404).end();
  };
  const server = createServer((request, response) => void answer(request, response));
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const bound = server.address();
  return { address: `http://127.0.0.1:${typeof bound === "object" && bound ? bound.port : 0}`, server };
}

/** A file of the recognition's program by its address; nothing outside its folder has one. */
function coreFile(path: string): [string, string | null] {
  const found = /^\/ocr\/core\/([\w.-]+\.(js|wasm))$/.exec(path);
  if (!found) return ["", null];
  return [
    found[2] === "js" ? "text/javascript" : "application/wasm",
    join(folderOf("tesseract.js-core"), found[1] ?? ""),
  ];
}

const chromiumFlags = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];
const chromiumPaths = process.env.LAMP_CHROMIUM
  ? [process.env.LAMP_CHROMIUM]
  : ["/usr/bin/chromium", "/usr/bin/chromium-headless-shell"];

async function measured(
  file: string,
  { box, mask, area, native, target, free }: Flags,
): Promise<CaptureResult> {
  const chromiumPath = chromiumPaths.find((path) => existsSync(path));
  if (!chromiumPath)
    throw new BadInput(
      `Captures are measured in a browser, and there is none at ${chromiumPaths.join(" or ")}: install Chromium, or name it in LAMP_CHROMIUM.`,
    );
  const { chromium } = await import("@playwright/test");
  const { address, server } = await served(await bundled());
  const browser = await chromium.launch({ executablePath: chromiumPath, args: chromiumFlags });
  try {
    const tab = await browser.newPage();
    await tab.goto(address);
    await tab.locator("input").setInputFiles(file);
    const options = {
      area: area ?? null,
      masks: mask,
      box: box ?? null,
      yardstick: { nativeFps: native, targetFps: target ?? native, tied: !free },
    };
    const outcome = await tab.evaluate(
      async (asked) =>
        (
          globalThis as never as { measureFile: (options: unknown, paths: unknown) => Promise<unknown> }
        ).measureFile(asked, { worker: "/ocr/worker.js", core: "/ocr/core", language: "/ocr/language" }),
      options,
    );
    const told = outcome as { ok: true; result: CaptureResult } | { ok: false; problem: string };
    if (!told.ok) throw new BadInput(`${file}: ${told.problem}.`);
    return told.result;
  } finally {
    await browser.close();
    server.close();
  }
}
