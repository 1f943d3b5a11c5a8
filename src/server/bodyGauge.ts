import type { BodyBounds } from "@/contract";
import { Problem } from "./problem";

const inWords: Record<keyof BodyBounds, string> = { keys: "names", values: "values", texts: "texts" };

/** Where a sign stands next; the piece's length where it doesn't. */
function nextOf(part: Uint8Array, sign: number, from: number): number {
  const found = part.indexOf(sign, from);
  return found < 0 ? part.length : found;
}

/** Levels of a body: no door takes what is nested deeper. */
const deepest = 64;

/** ASCII of what JSON is made of: `"`, `\`, `,`, `:`, and brackets of lists and objects. */
const [quote, backslash, comma, colon] = [0x22, 0x5c, 0x2c, 0x3a];
const isOpening = (byte: number) => byte === 0x5b || byte === 0x7b,
  isClosing = (byte: number) => byte === 0x5d || byte === 0x7d;

/**
 * Counts what a JSON body holds while it comes in, in pieces that may end anywhere, and refuses it before
 * anything reads it. It doesn't judge whether the text is JSON.
 */
export class BodyGauge {
  keys = 0;
  values = 0;
  texts = 0;
  private depth = 0;
  private inText = false;
  /** The last byte of the piece was a backslash that stands for itself no more. */
  private escaped = false;

  constructor(private readonly bounds: BodyBounds) {}

  /**
   * @throws Problem 413 once there is too much of it, 422 once it is nested too deeply
   */
  see(part: Uint8Array): void {
    // Texts are long and what ends them is rare: both signs are looked for, not every byte looked at.
    let escape = nextOf(part, backslash, 0);
    for (let at = 0; at < part.length; at++) {
      if (!this.inText) {
        this.sign(part[at] ?? 0);
        continue;
      }
      if (this.escaped) at++;
      this.escaped = false;
      if (escape < at) escape = nextOf(part, backslash, at);
      let end = nextOf(part, quote, at);
      while (escape < end) {
        at = escape + 2;
        this.escaped = at > part.length;
        if (end < at) end = nextOf(part, quote, at);
        escape = nextOf(part, backslash, at);
      }
      this.inText = end >= part.length;
      at = end;
    }
    for (const what of ["keys", "values", "texts"] as const)
      if (this[what] > this.bounds[what])
        throw new Problem(
          413,
          `The request holds more than ${this.bounds[what].toLocaleString("en-GB")} ${inWords[what]}.`,
          "Send less at once.",
        );
  }

  private sign(byte: number): void {
    if (byte === quote) {
      this.inText = true;
      this.texts++;
    } else if (byte === comma) this.values++;
    else if (byte === colon) this.keys++;
    else if (isOpening(byte)) {
      this.values++;
      if (++this.depth > deepest)
        throw new Problem(
          422,
          `The request is nested more than ${deepest} deep.`,
          "Send it as the door's schema describes it.",
        );
    } else if (isClosing(byte)) this.depth--;
  }
}
