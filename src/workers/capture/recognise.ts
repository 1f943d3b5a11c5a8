import { PSM, createWorker } from "tesseract.js";
import type { ReadDigits } from "./measure";

/** Where the application serves text recognition from: its own worker, its program, and the language data. */
export interface RecogniserPaths {
  worker: string;
  core: string;
  language: string;
}

/**
 * Text recognition, nothing of which comes from elsewhere. It isn't told to know digits only: what isn't a
 * number is then read as one, and how sure it is says nothing; here what isn't a number is seen to be none.
 */
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
    tessedit_pageseg_mode: PSM.SINGLE_LINE,
    user_defined_dpi: "150",
  });
  return {
    read: async (picture) => {
      const { data } = await worker.recognize(
        await picture.convertToBlob({ type: "image/png" }),
        {},
        { text: true, blocks: true },
      );
      // A counter's unit may stand beside it: the surest is the word that holds digits.
      const words = (data.blocks ?? []).flatMap(({ paragraphs }) =>
        paragraphs.flatMap(({ lines }) => lines.flatMap(({ words: own }) => own)),
      );
      const number = words.find(({ text }) => /\d/.test(text));
      return { text: data.text.trim(), confidence: number?.confidence ?? data.confidence };
    },
    end: async () => void (await worker.terminate()),
  };
}
