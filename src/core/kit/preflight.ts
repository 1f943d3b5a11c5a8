import type { PreflightWhen } from "./preflightWhens";
import type { NewTitle } from "./titleSchema";
import type { Conditions, RigSpec } from "./rigSchema";
import type { PreflightItem } from "./preflightSchema";

/** The items that ship; a wrong one of these wastes an afternoon. */
export const firstPreflight: PreflightItem[] = [
  { label: "Firmware present", why: "An engine without it may start and run wrong.", when: "always" },
  {
    label: "Overlay readings on: rate, speed, load, watts, heat",
    why: "What isn't logged can't be diagnosed.",
    when: "always",
  },
  { label: "Capture path as in the runs before", why: "Capturing costs speed.", when: "always" },
  { label: "Sound output chosen", why: "A missing output stalls titles that wait for sound.", when: "always" },
  {
    label: "Drive fast enough for the title",
    why: "Slow storage shows as hitches on entering rooms.",
    when: "always",
  },
  {
    label: "Patches applied, and matching the title's version",
    why: "A patch for another version crashes or does nothing.",
    when: "title has patches",
  },
  {
    label: "Caches cleared for the cold pass",
    why: "A first visit can be measured once only.",
    when: "cold trial",
  },
  { label: "Caches kept on", why: "A warm run is compared with warm runs.", when: "warm trial" },
  {
    label: "Clip-on cooler on, or off as the conditions say",
    why: "It decides how long the rate holds.",
    when: "has cooler",
  },
  {
    label: "Battery above half",
    why: "Some rigs lower clocks on a low battery. Stop if it swells, smells or gets hot.",
    when: "on battery",
  },
  { label: "Power saver off", why: "It halves clocks without a word.", when: "has battery" },
  {
    label: "Display at its own refresh, picture processing off",
    why: "Televisions change rate and add delay.",
    when: "over a cable",
  },
  { label: "Waiting at the worst scene", why: "Easy scenes prove nothing.", when: "hard title" },
];

export interface PreflightSetting {
  spec: RigSpec;
  conditions: Conditions;
  title: Pick<NewTitle, "hardness"> & { patches: number };
  cacheState: "warm" | "cold" | "unknown";
  rules: { requires: { cooler: boolean | null } };
}

/** The items that fit a rig, a title, the conditions and the rules of the run to come. */
export function preflightFor<Item extends PreflightItem>(
  items: Item[],
  { spec, conditions, title, cacheState, rules }: PreflightSetting,
): Item[] {
  const display = spec.displays.find(({ name }) => name === conditions.display);
  const holds: Record<PreflightWhen, boolean> = {
    always: true,
    "has battery": spec.batteryWh !== null,
    "on battery": spec.batteryWh !== null && !conditions.pluggedIn,
    "has cooler": spec.cooling.coolerToHand || rules.requires.cooler === true,
    "hard title": title.hardness === "hard",
    "title has patches": title.patches > 0,
    "cold trial": cacheState === "cold",
    "warm trial": cacheState === "warm",
    "over a cable": display?.connection === "cable",
  };
  return items.filter(({ when }) => holds[when]);
}
