/** Words as a key. @example keyOf("60 fps, widescreen") // → "60-fps-widescreen" */
export const keyOf = (label: string): string =>
  label
    .normalize("NFKD")
    .replace(/[^A-Za-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 80) || "unnamed";
