import { firstConditions, plainSetting, type RigSpec, type Setting, type Settings } from "@/core/kit";
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

/** A setting of no engine's file, whose fastest value only a test tells. */
const beside = (key: string, more: Partial<Setting>): Setting =>
  plainSetting(key, { fastest: null, configKey: "", ...more });

/**
 * What a rig can be set to and a title held to, as settings that a profile's layers hold like an engine's.
 * @param nativeFps the title's own rate, fps: what it runs at where nothing else is decided; null where no
 *   title is asked for
 */
export function besideSettings(spec: RigSpec, nativeFps: number | null): Setting[] {
  const first = firstConditions(spec);
  const choice = (key: string, label: string, choices: string[], own: string | null): Setting[] =>
    choices.length > 1 && own !== null
      ? [
          beside(key, {
            label,
            type: "choice",
            choices,
            default: own,
            costs: { picture: 0, feel: 0, heat: 1, risk: 0 },
          }),
        ]
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
    ...(spec.cooling.coolerToHand ? [beside(cooler, { label: "Clip-on cooler" })] : []),
    ...(nativeFps === null
      ? []
      : [beside(rate, { label: "Rate held to, fps", type: "number", min: 1, max: 1000, default: nativeFps })]),
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
