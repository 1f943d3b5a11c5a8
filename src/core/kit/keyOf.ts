/**
 * Words as a key, in any script; Latin letters lose their accents.
 * @example keyOf("60 fps, widescreen") // → "60-fps-widescreen"
 */
export const keyOf = (label: string): string =>
  label
    .normalize("NFKD")
    .replace(/(?<=[A-Za-z])[\u0300-\u036f]+/g, "")
    .normalize("NFC")
    .slice(0, 80)
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, "-")
    .replace(/^-+|-+$/g, "") || "unnamed";

/** What a key is made of. */
export const keyPattern = /^[\p{L}\p{M}\p{N}_.-]+$/u;
export const keyMessage = "Letters, digits, dot, dash and underscore only.";
