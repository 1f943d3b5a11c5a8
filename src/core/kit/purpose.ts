/** What a setting is for, where the application has to know: no decision reads its key or its name. */
export const purposes = [
  "scale",
  "limiter",
  "hold rate",
  "display sync",
  "emulated clock",
  "cycle skip",
  "frame skip",
  "sound queue",
  "sound sync",
  "back end",
  "shader cache",
  "costs speed",
] as const;
export type Purpose = (typeof purposes)[number];

/** The setting of a catalogue that is for something; the first where several are. */
export const settingFor = <S extends { purpose: Purpose | null }>(catalogue: S[], purpose: Purpose): S | null =>
  catalogue.find((setting) => setting.purpose === purpose) ?? null;

/** What a purpose is guessed from. */
interface Shape {
  type: "switch" | "choice" | "number" | "text";
  relieves: readonly string[];
  costs: { picture: number; feel: number };
  min: number | null;
  max: number | null;
  default: unknown;
  fastest: unknown;
  restart: boolean;
}

/**
 * What a setting is for, by its shape, where a catalogue doesn't say: a person can say otherwise.
 * @returns null where no shape fits
 */
export function guessPurpose(setting: Shape): Purpose | null {
  const { type, relieves, costs, min, max, fastest, restart } = setting;
  const eases = (what: string) => relieves.includes(what);
  if (type === "number") {
    const value = Number(setting.default);
    if (eases("graphics") && costs.picture > 0 && min !== null && min >= 0.25 && fastest === min)
      return "scale";
    if (eases("sync")) return "limiter";
    if (eases("sound")) return "sound queue";
    if (eases("processor") && min !== null && max !== null && value > min && value < max)
      return "emulated clock";
    return eases("processor") && value === min ? "cycle skip" : null;
  }
  if (type === "switch") {
    if (eases("sync")) return "hold rate";
    if (eases("sound")) return "sound sync";
    return eases("shaders") ? "shader cache" : null;
  }
  return type === "choice" && eases("graphics") && restart ? "back end" : null;
}
