import { ConfigProblem } from "./types";

export type Encoding = "utf-8" | "utf-8 with mark" | "utf-16le" | "utf-16be" | "latin-1";

/** A file's text, by its byte order mark, else as UTF-8, else as Latin-1. The mark is kept apart. */
export function textIn(bytes: Uint8Array): { text: string; encoding: Encoding } {
  const [a, b, c] = bytes;
  if (a === 0xef && b === 0xbb && c === 0xbf)
    return {
      text: new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(bytes.subarray(3)),
      encoding: "utf-8 with mark",
    };
  if (a === 0xff && b === 0xfe) return { text: wide(bytes.subarray(2), true), encoding: "utf-16le" };
  if (a === 0xfe && b === 0xff) return { text: wide(bytes.subarray(2), false), encoding: "utf-16be" };
  try {
    return {
      text: new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(bytes),
      encoding: "utf-8",
    };
  } catch {
    return { text: Array.from(bytes, (byte) => String.fromCharCode(byte)).join(""), encoding: "latin-1" };
  }
}

function wide(bytes: Uint8Array, little: boolean): string {
  if (bytes.length % 2) throw new ConfigProblem("half a character stands at its end");
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const parts: string[] = [];
  for (let at = 0; at < bytes.length; at += 2) parts.push(String.fromCharCode(view.getUint16(at, little)));
  return parts.join("");
}

/**
 * The bytes of a text in the encoding that its file had. @throws ConfigProblem for a character that it doesn't
 * have
 */
export function bytesOf(text: string, encoding: Encoding): Uint8Array {
  if (encoding === "utf-8") return new TextEncoder().encode(text);
  if (encoding === "utf-8 with mark") return Uint8Array.of(0xef, 0xbb, 0xbf, ...new TextEncoder().encode(text));
  if (encoding === "latin-1")
    return Uint8Array.from(text, (character) => {
      const code = character.charCodeAt(0);
      if (character.length > 1 || code > 0xff)
        throw new ConfigProblem(`“${character}” isn't in Latin-1, which the file is in`);
      return code;
    });
  const bytes = new Uint8Array(2 * text.length + 2);
  const view = new DataView(bytes.buffer);
  const little = encoding === "utf-16le";
  view.setUint16(0, 0xfeff, little);
  for (let at = 0; at < text.length; at++) view.setUint16(2 * at + 2, text.charCodeAt(at), little);
  return bytes;
}
