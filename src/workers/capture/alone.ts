import { BlobSource } from "mediabunny";
import { CaptureProblem, measureCapture, readingFault, type CaptureOptions } from "./measure";
import { startRecogniser, type RecogniserPaths } from "./recognise";

/* What a page without the application round it does: measures one file, for the command line and for tests. */

export type AloneOutcome = { ok: true; result: unknown } | { ok: false; problem: string };

/** Measures the file that the page was handed. */
async function measureFile(options: CaptureOptions, paths: RecogniserPaths): Promise<AloneOutcome> {
  const file = document.querySelector("input")?.files?.[0];
  if (!file) return { ok: false, problem: "the page was handed no file" };
  const recogniser = options.box ? await startRecogniser(paths) : null;
  try {
    const { result } = await measureCapture(new BlobSource(file), options, recogniser?.read ?? null);
    // Typed arrays don't cross into another process as such.
    return {
      ok: true,
      result: {
        ...result,
        frameTimes: [...result.frameTimes],
        startsMs: [...result.startsMs],
        summary: { ...result.summary, segments: [] },
      },
    };
  } catch (error) {
    if (error instanceof CaptureProblem) return { ok: false, problem: error.message };
    return { ok: false, problem: `it can't be read: ${readingFault(error)}` };
  } finally {
    await recogniser?.end();
  }
}

Object.assign(globalThis, { measureFile });
