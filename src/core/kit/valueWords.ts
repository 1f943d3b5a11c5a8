/** A setting's value. @example valueWords(true) // → "on" */
export const valueWords = (of: unknown) =>
  of === true ? "on" : of === false ? "off" : of === null || of === undefined ? "not set" : String(of);

/** A setting that changed, by the label that its engine gives it. @example changed({ label: "Internal scale", from: 2, to: 3 }) // → "Internal scale: 2 → 3" */
export const changed = ({ label, from, to }: { label: string; from: unknown; to: unknown }) =>
  `${label}: ${valueWords(from)} → ${valueWords(to)}`;
