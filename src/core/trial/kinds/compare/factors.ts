import { valueWords, type RigSpec, type Setting, type Settings, type SettingValue } from "@/core/kit";
import type { HouseRules } from "@/core/verdict";
import { makeArm, type Draft } from "../../drafting";
import { emptyPlan } from "../../shapes";
import type { ArmConditions } from "../../shapesSchema";

/** A value that one thing can be varied to, and the arm that it makes. */
export interface FactorValue {
  name: string;
  note: string;
  settings: Settings;
  conditions: ArmConditions;
  buildId: string | null;
}

/** One thing that can be varied, with every value it can take; what is in force is among them no arm. */
export interface Factor {
  key: string;
  label: string;
  /** What is in force, in words. */
  now: string;
  values: FactorValue[];
  /** What to watch out for where it is changed; empty for nothing. */
  caution: string;
  /** Raises clocks, watts or heat: the cautions go beside it. */
  heats: boolean;
}

/** What factors are found in. */
export interface FactorBase {
  catalogue: Setting[];
  standing: { settings: Settings };
  /** Conditions in force. */
  conditions: ArmConditions;
  spec: RigSpec;
  builds: { id: string; engine: string; version: string }[];
  /** The build in force. */
  buildId: string;
  mayChange: HouseRules["mayChange"];
}

/** Values of a number that are offered, at most, nearest to what is in force first. */
const mostNumbers = 12;

/** Values that a setting can be varied to. */
function valuesOf(setting: Setting, from: SettingValue): SettingValue[] {
  const { type, choices, min, max, step } = setting;
  if (type === "switch") return [!from];
  if (type === "choice") return choices.filter((choice) => choice !== from);
  if (type !== "number" || typeof from !== "number") return [];
  const by = step ?? 1;
  const near: number[] = [];
  for (let k = 1; k <= mostNumbers && near.length < mostNumbers; k++)
    for (const to of [from + k * by, from - k * by])
      if (to >= (min ?? -Infinity) && to <= (max ?? Infinity)) near.push(Number(to.toFixed(6)));
  return near.slice(0, mostNumbers).sort((a, b) => a - b);
}

const plain = { note: "", conditions: {}, buildId: null };

function ofSetting(setting: Setting, { standing }: FactorBase): Factor {
  const from = standing.settings[setting.key] ?? setting.default;
  return {
    key: setting.key,
    label: setting.label,
    now: valueWords(from),
    caution: setting.caution ?? "",
    heats: setting.costs.heat > 1,
    values: valuesOf(setting, from).map((to) => ({
      ...plain,
      name: `${setting.label} ${valueWords(to)}`.slice(0, 120),
      note: to === setting.default ? "usual" : "",
      settings: {
        ...standing.settings,
        [setting.key]: to,
        ...Object.fromEntries(setting.linked.map((key) => [key, to])),
      },
    })),
  };
}

/** Conditions that can be varied, each with its values; those of a rig that has one alone aren't offered. */
function ofConditions({ spec, standing, conditions, mayChange }: FactorBase): Factor[] {
  const factor = <Key extends keyof ArmConditions>(
    key: Key,
    label: string,
    options: { value: ArmConditions[Key]; name: string; note?: string }[],
    heats = false,
  ): Factor[] => {
    const now = options.find(({ value }) => value === conditions[key]);
    const others = options.filter((option) => option !== now);
    if (options.length < 2) return [];
    return [
      {
        key,
        label,
        now: now?.name ?? "not said",
        caution: "",
        heats,
        values: others.map(({ value, name, note = "" }) => ({
          ...plain,
          name: `${label} ${name}`.slice(0, 120),
          note,
          settings: standing.settings,
          conditions: { [key]: value },
        })),
      },
    ];
  };
  const either = (yes: string, no: string) => [
    { value: false, name: no },
    { value: true, name: yes },
  ];
  const named = (names: string[]) => names.map((name) => ({ value: name, name }));
  return [
    ...(mayChange.powerMode
      ? factor(
          "powerMode",
          "Power mode",
          spec.powerModes.map(({ name, watts }) => ({
            value: name,
            name,
            note: watts === null ? "" : `${watts} W`,
          })),
          true,
        )
      : []),
    ...(mayChange.clocks ? factor("clocks", "Clock option", named(spec.clockOptions), true) : []),
    ...(spec.batteryWh === null ? [] : factor("pluggedIn", "Power", either("plugged in", "on battery"), true)),
    ...(spec.displays.length > 1
      ? [
          ...factor("docked", "Place", either("docked", "in the hand")),
          ...factor("display", "Display", named(spec.displays.map(({ name }) => name))),
        ]
      : []),
    ...(spec.cooling.coolerToHand ? factor("cooler", "Clip-on cooler", either("on", "off")) : []),
    ...factor("setUp", "Set-up", [
      { value: null, name: "usual" },
      ...(spec.setUps ?? []).map(({ name }) => ({ value: name, name })),
    ]),
  ];
}

/** Everything that one thing can be varied in: settings of engine, device, title and patches, conditions, builds. */
export function factorsFor(base: FactorBase): Factor[] {
  const { catalogue, builds, buildId, standing, mayChange } = base;
  const now = builds.find(({ id }) => id === buildId);
  const seen = new Set<string>();
  const settings = catalogue.filter((setting) => {
    // Of settings that move together one is enough.
    if (setting.linked.some((key) => seen.has(key))) return false;
    seen.add(setting.key);
    return setting.costs.heat < 2 || mayChange.clocks;
  });
  const build: Factor = {
    key: "build",
    label: "Engine and build",
    now: now ? `${now.engine} ${now.version}` : "not said",
    caution: "",
    heats: false,
    values: builds
      .filter(({ id }) => id !== buildId)
      .map(({ id, engine, version }) => ({
        ...plain,
        name: `${engine} ${version}`,
        settings: standing.settings,
        buildId: id,
      })),
  };
  return [...settings.map((setting) => ofSetting(setting, base)), ...ofConditions(base), build].filter(
    ({ values }) => values.length > 0,
  );
}

/**
 * One thing in any number of values against what is in force.
 * @param from conditions as they are, which the first arm holds where the others change them
 */
export function factorPlan(
  { standing }: { standing: { settings: Settings } },
  { label, now }: Pick<Factor, "label" | "now">,
  values: FactorValue[],
  { rounds, cold, name }: { rounds: number; cold: boolean; name: string },
  from: ArmConditions,
): Draft {
  const varied = new Set(values.flatMap(({ conditions }) => Object.keys(conditions)));
  const held = Object.fromEntries(Object.entries(from).filter(([key]) => varied.has(key))) as ArmConditions;
  return {
    kind: "compare",
    name: name || label,
    rounds,
    cold,
    plan: emptyPlan,
    arms: [
      makeArm(`as it is: ${now}`.slice(0, 120), "as it is", standing.settings, { conditions: held }),
      ...values.map(({ name: arm, settings, conditions, buildId }) =>
        makeArm(arm, "changed", settings, { conditions, buildId }),
      ),
    ],
  };
}
