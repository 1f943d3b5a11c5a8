import type { Body, HandedOut } from "@/contract";
import { PNG } from "pngjs";
import type { StillRow } from "@/core/records";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { lockOpenJob } from "@/server/jobs/lockJob";
import { Problem, notFound } from "@/server/problem";
import { writing } from "@/server/writing";

/** Colour type of red, green and blue, three bytes a pixel (ISO/IEC 15948). */
const trueColour = 2;

function pngOf(rgb: Buffer, width: number, height: number): Buffer {
  const picture = new PNG({ width, height });
  picture.data = rgb;
  return PNG.sync.write(picture, { colorType: trueColour, inputColorType: trueColour, inputHasAlpha: false });
}

/** Keeps a run's stills, once. They come as bare pixels; the pictures that are served later are made here. */
export async function addStills(actor: Actor, id: string, input: Body<"addStills">): Promise<{ kept: number }> {
  const { stills } = input;
  const made = stills.map(({ pixels, ...still }, at) => {
    const rgb = Buffer.from(pixels, "base64");
    const wanted = 3 * still.width * still.height;
    if (rgb.length !== wanted)
      throw new Problem(
        422,
        `Still ${at + 1} holds ${rgb.length} bytes; ${still.width} × ${still.height} pixels are ${wanted}.`,
        "Send red, green and blue of every pixel, row by row.",
        { [`stills.${at}.pixels`]: "Three bytes a pixel." },
      );
    return { ...still, png: pngOf(rgb, still.width, still.height) };
  });
  return writing(actor, async (touch) => {
    const place = await data.placeOfRun(id);
    if (!place || place.deleted) throw notFound("run");
    await lockOpenJob(place.jobId);
    const run = await data.findRun(id);
    if (run?.source !== "capture")
      throw new Problem(422, "Only a run from a video has stills.", "Nothing was kept.");
    if ((await data.listStills(id)).length > 0)
      throw new Problem(409, "This run has its stills.", "They are kept once, with the run.");
    await data.putStills(id, made);
    touch({ kind: "job", id: place.jobId });
    return { kept: made.length };
  });
}

export const listStills = async (runId: string): Promise<{ rows: StillRow[] }> => ({
  rows: await data.listStills(runId),
});

/** A still as PNG. */
export async function readStill(id: string): Promise<HandedOut> {
  const png = await data.findStill(id);
  if (!png) throw notFound("still");
  return { content: new Uint8Array(png) };
}
