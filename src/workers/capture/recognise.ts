import { PSM, createWorker } from "tesseract.js";
import type { ReadDigits } from "./measure";

/** Where the application serves text recognition from: its own worker, its program, and the language data. */
export interface RecogniserPaths {
  worker: string;
  core: string;
  language: string;
}

/** Text recognition that knows digits only; nothing of it comes from elsewhere. */
export async function startRecogniser(
  paths: RecogniserPaths,
): Promise<{ read: ReadDigits; end: () => Promise<void> }> {
  const worker = await createWorker("eng", 1, {
    workerPath: paths.worker,
    corePath: paths.core,
    langPath: paths.language,
    workerBlobURL: false,
    cacheMethod: "none",
    gzip: true,
  });
  await worker.setParameters({
    tessedit_char_whitelist: "0123456789.",
    tessedit_pageseg_mode: PSM.SINGLE_LINE,
    user_defined_dpi: "150",
  });
  return {
    read: async (picture) => {
      const { data } = await worker.recognize(
        await picture.convertToBlob({ type: "image/png" }),
        {},
        { text: true, blocks: false },
      );
      return { text: data.text.trim(), confidence: data.confidence };
    },
    end: async () => void (await worker.terminate()),
  };
}
