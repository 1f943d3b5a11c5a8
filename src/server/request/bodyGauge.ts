import type { BodyBounds } from "@/contract";
import { Problem } from "@/server/problem";

const inWords: Record<keyof BodyBounds, string> = { keys: "names", values: "values", texts: "texts" };

/** Levels of a body: no endpoint takes what is nested deeper. */
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
  /** A backslash came before. */
  private escaped = false;

  constructor(private readonly bounds: BodyBounds) {}

  /**
   * @throws Problem 413 once there is too much of it, 422 once it is nested too deeply
   */
  see(part: Uint8Array): void {
    for (const byte of part) {
      if (!this.inText) this.sign(byte);
      else if (this.escaped) this.escaped = false;
      else if (byte === backslash) this.escaped = true;
      else if (byte === quote) this.inText = false;
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
          "Send it as the endpoint's schema describes it.",
        );
    } else if (isClosing(byte)) this.depth--;
  }
}
