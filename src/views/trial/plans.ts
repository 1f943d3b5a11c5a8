import { isScale, limiterOf, limiterValueFor, screeningDesign, withSetting } from "@/core/advise";
import {
  emptyPlan,
  type Arm,
  type ArmConditions,
  type NewTrial,
  type Setting,
  type Settings,
  type SettingValue,
  type TrialKind,
} from "@/core/kit";
import type { PlanView } from "@/core/records";

type Base = Pick<
  PlanView,
  "job" | "catalogue" | "standing" | "spec" | "usefulScale" | "sceneMinutes" | "coolDownMinutes"
>;
type Draft = Omit<NewTrial, "jobId">;

const arm = (name: string, settings: Settings, more: Partial<Arm> = {}): Arm => ({
  name,
  settings,
  conditions: {},
  buildId: null,
  level: null,
  ...more,
});
const shown = (value: SettingValue | null) =>
  value === true ? "on" : value === false ? "off" : String(value ?? "as it is");

/** What differs between two arms, for naming them. */
export function armName(changes: { label: string; to: SettingValue | null }[]): string {
  return (
    changes
      .map(({ label, to }) => `${label} ${shown(to)}`)
      .join(", ")
      .slice(0, 120) || "changed"
  );
}

/** One change against what is in force. */
export function comparePlan(
  { standing }: Base,
  {
    name,
    settings,
    conditions,
    buildId,
    rounds,
    cold,
  }: {
    name: string;
    settings: Settings;
    conditions: ArmConditions;
    buildId: string | null;
    rounds: number;
    cold: boolean;
  },
  from: ArmConditions,
): Draft {
  const held = Object.fromEntries(
    Object.keys(conditions).map((key) => [key, from[key as keyof ArmConditions]]),
  ) as ArmConditions;
  return {
    kind: "compare",
    name,
    rounds,
    cold,
    plan: emptyPlan,
    arms: [
      arm("as it is", standing.settings, { conditions: held }),
      arm(name, settings, { conditions, buildId }),
    ],
  };
}

/** Everything at its fastest against what is in force. */
export function descendPlan(base: Base, fastest: Settings): Draft {
  return {
    kind: "compare",
    name: "Everything at its fastest",
    rounds: 2,
    cold: false,
    plan: emptyPlan,
    arms: [arm("as it is", base.standing.settings), arm("all fastest", fastest)],
  };
}

/** A setting's other value for a screening: its fastest, or the other side of a switch or choice. */
export function otherSide(setting: Setting, from: SettingValue): SettingValue | null {
  if (setting.fastest !== null && setting.fastest !== from) return setting.fastest;
  if (setting.type === "switch") return !from;
  if (setting.type === "choice") return setting.choices.find((choice) => choice !== from) ?? null;
  return setting.fastest === from && setting.default !== from ? setting.default : null;
}

/** A Plackett–Burman design over some settings: a row an arm. */
export function screenPlan({ standing, catalogue }: Base, keys: string[]): Draft {
  const factors = keys.map((key) => catalogue.find((setting) => setting.key === key)!);
  const design = screeningDesign(factors.length);
  const arms = design.map((row, index) => {
    const settings = factors.reduce((made, setting, k) => {
      const other = otherSide(setting, standing.settings[setting.key] ?? setting.default);
      return row[k] > 0 && other !== null ? withSetting(made, setting, other) : made;
    }, standing.settings);
    return arm(`row ${index + 1}`, settings);
  });
  return {
    kind: "screen",
    name: `Screening of ${keys.length} switches`,
    rounds: 1,
    cold: false,
    plan: { ...emptyPlan, keys },
    arms,
  };
}

/** Scales worth sweeping: native up to one past what the display shows. */
export function usualScales(setting: Setting, useful: number | null): number[] {
  const most = Math.min(setting.max ?? 8, (useful ?? 4) + 1),
    least = Math.max(1, setting.min ?? 1);
  const all = Array.from(
    { length: Math.max(1, Math.round((most - least) / (setting.step ?? 1)) + 1) },
    (_, k) => least + k * (setting.step ?? 1),
  );
  if (all.length <= 5) return all;
  return [...new Set([0, 1, 2, 3, 4].map((k) => all[Math.round((k * (all.length - 1)) / 4)]))];
}

export const scaleSetting = (catalogue: Setting[]) => catalogue.find(isScale) ?? null;
/** A switch that holds the rate, which a sweep wants off. */
export const holdSetting = (catalogue: Setting[]) =>
  catalogue.find(({ type, relieves }) => type === "switch" && relieves.includes("sync")) ?? null;

export function resolutionPlan(
  { standing, catalogue }: Base,
  levels: number[],
  rounds: number,
  lifted: boolean,
): Draft {
  const scale = scaleSetting(catalogue)!;
  const hold = lifted ? holdSetting(catalogue) : null;
  const during = hold ? { ...standing.settings, [hold.key]: false } : standing.settings;
  return {
    kind: "resolution",
    name: "Which scale",
    rounds,
    cold: false,
    plan: { ...emptyPlan, keys: [scale.key, ...scale.linked] },
    arms: [...levels]
      .sort((a, b) => a - b)
      .map((level) => arm(`×${level}`, withSetting(during, scale, level), { level })),
  };
}

/** Where a device is used: in the hand, on a dock, at the mains. */
export const places = {
  handheld: { docked: false, pluggedIn: false },
  docked: { docked: true, pluggedIn: true },
  "plugged in": { docked: false, pluggedIn: true },
} as const;
export type Place = keyof typeof places;

/** Every chosen mode, in every chosen place; without places, as it lies now. */
export function powerPlan(
  { standing, spec }: Base,
  modes: string[],
  rounds: number,
  elsewhereWatts: number | null,
  where: Place[] = [],
): Draft {
  const chosen = spec.powerModes.filter(({ name }) => modes.includes(name));
  const arms =
    where.length === 0
      ? chosen.map(({ name, watts }) =>
          arm(name, standing.settings, { level: watts, conditions: { powerMode: name } }),
        )
      : chosen.flatMap(({ name, watts }) =>
          where.map((place) =>
            arm(`${name}, ${place}`, standing.settings, {
              level: watts,
              conditions: { powerMode: name, ...places[place] },
            }),
          ),
        );
  return {
    kind: "power",
    name: where.length > 1 ? "Handheld, docked, plugged in" : "Which power mode",
    rounds,
    cold: false,
    plan: { ...emptyPlan, elsewhereWatts },
    arms,
  };
}

export function heatPlan({ standing, spec }: Base, minutes: number, cooler: boolean): Draft {
  const arms =
    cooler && spec.cooling.coolerToHand
      ? [
          arm("bare", standing.settings, { conditions: { cooler: false } }),
          arm("cooler on", standing.settings, { conditions: { cooler: true } }),
        ]
      : [arm("as it is", standing.settings)];
  return {
    kind: "heat",
    name: arms.length > 1 ? "With and without the cooler" : "Where heat settles",
    rounds: 1,
    cold: false,
    plan: { ...emptyPlan, minutes },
    arms,
  };
}

export function clocksPlan({ standing, spec }: Base, options: string[], soakMinutes: number): Draft {
  const steps = spec.clockOptions.filter((option) => options.includes(option));
  return {
    kind: "clocks",
    name: "Clock ladder",
    rounds: 1,
    cold: false,
    plan: { ...emptyPlan, soakMinutes },
    arms: steps.map((option, step) =>
      arm(option, standing.settings, { level: step + 1, conditions: { clocks: option } }),
    ),
  };
}

export function memoryPlan({ standing }: Base, minutes: number): Draft {
  return {
    kind: "memory",
    name: "How long memory lasts",
    rounds: 1,
    cold: false,
    plan: { ...emptyPlan, minutes },
    arms: [arm("as it is", standing.settings)],
  };
}

/** The uncapped run that decides, and a capped arm for every rate that could be locked. */
export function ratePlan({ standing, catalogue, job }: Base, overdriveKey: string | null): Draft {
  const limiter = limiterOf(catalogue),
    hold = holdSetting(catalogue);
  const lift = {
    ...standing.settings,
    ...(limiter ? { [limiter.key]: limiter.min ?? 0 } : {}),
    ...(hold ? { [hold.key]: false } : {}),
  };
  const arms = [arm("free", lift)];
  for (let k = 1; limiter && job.nativeFps / k >= 15 && arms.length < 6; k++) {
    const cap = job.nativeFps / k;
    if (job.tied && k > 1) break;
    const value = limiterValueFor(Math.round(cap), limiter.countsDouble);
    if (limiter.max !== null && value > limiter.max) continue;
    arms.push(
      arm(
        `${Number.isInteger(cap) ? cap : cap.toFixed(2)} fps`,
        { ...standing.settings, [limiter.key]: value },
        { level: cap },
      ),
    );
  }
  const driven = overdriveKey && catalogue.find(({ key }) => key === overdriveKey);
  if (driven)
    arms.push(
      arm("overdriven", {
        ...lift,
        [driven.key]: Math.min(driven.max ?? 130, Math.round(Number(driven.default) * 1.3)),
      }),
    );
  return {
    kind: "rate",
    name: "Which rate to lock",
    rounds: 1,
    cold: false,
    plan: { ...emptyPlan, keys: limiter ? [limiter.key] : [] },
    arms,
  };
}

const restartMinutes = 2,
  breathMinutes = 1;

/** Minutes that a plan takes: runs, restarts where a setting needs one, cool-down between runs as a heat sweep measured it, else a breath. */
export function planMinutes(
  { arms, rounds, plan, kind }: Pick<Draft, "arms" | "rounds" | "plan" | "kind">,
  {
    catalogue,
    sceneMinutes,
    standing,
    coolDownMinutes,
  }: Pick<Base, "catalogue" | "sceneMinutes" | "standing" | "coolDownMinutes">,
): number {
  const one = kind === "clocks" ? (plan.soakMinutes ?? 10) : (plan.minutes ?? sceneMinutes);
  const restarts = arms.filter(({ settings }) =>
    catalogue.some((setting) => setting.restart && settings[setting.key] !== standing.settings[setting.key]),
  ).length;
  const runs = kind === "rate" ? 1 : arms.length * rounds;
  return Math.ceil(
    runs * (one + (coolDownMinutes ?? breathMinutes)) +
      restarts * rounds * restartMinutes +
      (kind === "clocks" ? (plan.soakMinutes ?? 10) : 0),
  );
}

export const kindWords: Record<TrialKind, { name: string; question: string }> = {
  compare: { name: "One change", question: "Was it real? The same scene with and without one change." },
  screen: { name: "Screening", question: "Which of many switches matter, in few runs." },
  resolution: { name: "Resolution", question: "The largest scale that holds the target." },
  power: { name: "Power", question: "The least watts that hold the target." },
  heat: { name: "Heat", question: "Where it settles, and what it sustains." },
  clocks: { name: "Clocks", question: "The highest step that stays clean." },
  memory: { name: "Memory", question: "How long until the wall." },
  rate: { name: "Rate", question: "Which rate to lock." },
};
