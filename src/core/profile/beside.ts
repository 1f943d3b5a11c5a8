import { firstConditions, type RigSpec, type Setting, type Settings } from "@/core/kit";
import type { ArmConditions } from "@/core/trial";

/** Keys of what a profile holds beside an engine's settings; no setting's key has a colon. */
export const besideKeys = {
  powerMode: "rig:powerMode",
  clocks: "rig:clocks",
  cooler: "rig:cooler",
  rate: "title:rate",
} as const;

const conditionKeys = ["powerMode", "clocks", "cooler"] as const;
const all: ReadonlySet<string> = new Set(Object.values(besideKeys));
export const isBeside = (key: string) => all.has(key);

/** A check against the default says something of every value but the rate: that is decided by a rate trial. */
export const isCheckable = (key: string) => key !== besideKeys.rate;

const plain = {
  purpose: null,
  choices: [],
  min: null,
  max: null,
  step: null,
  fastest: null,
  relieves: [],
  restart: false,
  linked: [],
  countsDouble: false,
  section: "",
  configKey: "",
} satisfies Partial<Setting>;
const costs = { picture: 0, feel: 0, heat: 0, risk: 0 };

/**
 * What a rig can be set to and a title held to, as settings that a profile's layers hold like an engine's.
 * @param nativeFps the title's own rate, fps: what it runs at where nothing else is decided; null where no title is asked for
 */
export function besideSettings(spec: RigSpec, nativeFps: number | null): Setting[] {
  const first = firstConditions(spec);
  const choice = (key: string, label: string, choices: string[], own: string | null): Setting[] =>
    choices.length > 1 && own !== null
      ? [{ ...plain, key, label, type: "choice", choices, default: own, costs: { ...costs, heat: 1 } }]
      : [];
  const { powerMode, clocks, cooler, rate } = besideKeys;
  return [
    ...choice(
      powerMode,
      "Power mode",
      spec.powerModes.map(({ name }) => name),
      first.powerMode,
    ),
    ...choice(clocks, "Clock option", spec.clockOptions, first.clocks),
    ...(spec.cooling.coolerToHand
      ? [{ ...plain, key: cooler, label: "Clip-on cooler", type: "switch" as const, default: false, costs }]
      : []),
    ...(nativeFps === null
      ? []
      : [
          {
            ...plain,
            key: rate,
            label: "Rate held to, fps",
            type: "number" as const,
            min: 1,
            max: 1000,
            default: nativeFps,
            costs,
          },
        ]),
  ];
}

/** What is decided beside the settings. */
export interface Beside {
  conditions: ArmConditions;
  /** Rate wanted, fps; null or absent where nothing is said of it. */
  targetFps?: number | null;
}

/** Conditions and rate as values of a profile; what isn't said isn't there. */
export function besideValues({ conditions, targetFps }: Beside): Settings {
  const said = conditionKeys.flatMap((key) => {
    const value = conditions[key];
    return value === undefined || value === null ? [] : [[besideKeys[key], value] as const];
  });
  return Object.fromEntries(
    targetFps === undefined || targetFps === null ? said : [...said, [besideKeys.rate, targetFps] as const],
  );
}

/** Values of a profile as conditions and rate: the way back. */
export function besideOf(values: Settings): { conditions: ArmConditions; targetFps: number | null } {
  const said = conditionKeys.flatMap((key) => {
    const value = values[besideKeys[key]];
    return value === undefined ? [] : [[key, value] as const];
  });
  const rate = values[besideKeys.rate];
  return {
    conditions: Object.fromEntries(said),
    targetFps: typeof rate === "number" ? rate : null,
  };
}
