/** How much light a lamp gives, brightest first; `dotted` is a lamp not lit yet. */
export type Light = "full" | "bitten" | "half" | "ember" | "empty" | "dotted";

const inside: Record<Light, React.ReactNode> = {
  full: (
    <>
      <circle cx="12" cy="12" r="11" fill="currentColor" opacity="0.28" />
      <circle cx="12" cy="12" r="7.5" fill="currentColor" />
    </>
  ),
  bitten: (
    <path
      d="M12 4.5a7.5 7.5 0 1 0 7.5 7.5 4.8 4.8 0 0 1-4.9-3.4A4.6 4.6 0 0 1 12 4.5Z"
      fill="currentColor"
      opacity="0.92"
    />
  ),
  half: (
    <>
      <circle cx="12" cy="12" r="7.5" fill="none" stroke="currentColor" strokeWidth="1.4" />
      <path d="M12 4.5a7.5 7.5 0 0 0 0 15Z" fill="currentColor" opacity="0.85" />
    </>
  ),
  ember: (
    <>
      <circle cx="12" cy="12" r="7.5" fill="none" stroke="currentColor" strokeWidth="1.2" />
      <circle cx="12" cy="15" r="2.4" fill="currentColor" />
    </>
  ),
  empty: (
    <>
      <circle cx="12" cy="12" r="7.5" fill="none" stroke="currentColor" strokeWidth="1.4" />
      <path d="M5.5 18.5 18.5 5.5" stroke="currentColor" strokeWidth="1.6" />
    </>
  ),
  dotted: (
    <circle
      cx="12"
      cy="12"
      r="7.5"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.4"
      strokeDasharray="1.5 2.6"
    />
  ),
};

/** The light that each verdict has, by its word. */
export const lightOf = {
  steady: "full",
  flickers: "bitten",
  dims: "half",
  gutters: "ember",
  dark: "empty",
} as const satisfies Record<string, Light>;

/** A lamp; always shown beside its word, so it is hidden from readers. Never blinks. */
export function Lamp({ light, size = 20 }: { light: Light; size?: number }) {
  const lit = light === "full" || light === "bitten" || light === "half";
  return (
    <svg viewBox="0 0 24 24" width={size} height={size} aria-hidden className={lit ? "text-lit" : "text-soft"}>
      {inside[light]}
    </svg>
  );
}
