import type { Lever } from "./shape";
import type { Conditions, RigSpec, Setting, Settings, SettingValue } from "@/core/kit";
import type { HouseRules } from "@/core/verdict";

/** Levers beside the settings, and the condition that each changes. */
export const conditionLevers = {
  "power mode": "powerMode",
  clocks: "clocks",
  cooler: "cooler",
  mains: "pluggedIn",
  dock: "docked",
  "set-up": "setUp",
} as const satisfies Record<string, keyof Conditions>;
export type ConditionLever = keyof typeof conditionLevers;

export interface LeverSetting {
  catalogue: Setting[];
  settings: Settings;
  rules: Pick<HouseRules, "mayChange" | "requires">;
  spec: Pick<RigSpec, "powerModes" | "clockOptions" | "cooling"> &
    Partial<Pick<RigSpec, "batteryWh" | "displays" | "setUps" | "driver">>;
  conditions: Pick<Conditions, "powerMode" | "clocks" | "cooler" | "docked" | "pluggedIn" | "setUp">;
  /** Largest scale that the display still shows; scales past it aren't offered. Null where not known. */
  usefulScale?: number | null;
}

const none = { picture: 0, feel: 0, heat: 0, risk: 0 };

const isScale = ({ purpose }: Pick<Setting, "purpose">) => purpose === "scale";

const clamp = (setting: Setting, value: number) =>
  Math.min(setting.max ?? Infinity, Math.max(setting.min ?? -Infinity, value));

/**
 * The next value of a setting towards its fastest, or away from it; null at the end or where no direction is
 * known.
 */
function nextValue(setting: Setting, from: SettingValue, towards: "speed" | "picture"): SettingValue | null {
  const { type, fastest } = setting;
  if (type === "number" && typeof from === "number") {
    if (fastest === null || typeof fastest !== "number") return null;
    const step = setting.step ?? 1;
    if (towards === "speed")
      return from === fastest ? null : clamp(setting, from + Math.sign(fastest - from) * step);
    const direction =
      Math.sign(from - fastest) ||
      Math.sign(Number(setting.default) - fastest) ||
      (fastest === setting.min ? 1 : -1);
    const away = clamp(setting, from + direction * step);
    return away === from ? null : away;
  }
  if (towards === "speed") return fastest === null || fastest === from ? null : fastest;
  return fastest !== null && from === fastest && setting.default !== fastest ? setting.default : null;
}

/** Values that a catalogue says are slower: the other end of a switch, other choices, a number's next step away. */
function againstCatalogue(setting: Setting, from: SettingValue): SettingValue[] {
  const { type, fastest, choices } = setting;
  if (type === "switch") return from === fastest ? [!from] : [];
  if (type === "choice") return choices.filter((choice) => choice !== from && choice !== fastest);
  const away = nextValue(setting, from, "picture");
  return away === null ? [] : [away];
}

/** Steps of a number that are left towards its fastest; 1 for anything else. */
function stepsLeft({ fastest, step }: Setting, from: SettingValue, towards: Lever["towards"]): number {
  return towards === "speed" && typeof from === "number" && typeof fastest === "number"
    ? Math.max(1, Math.round(Math.abs(fastest - from) / (step ?? 1)))
    : 1;
}

/** A change of one setting with those that must hold the same value. */
export function withSetting(
  settings: Settings,
  setting: Pick<Setting, "key" | "linked">,
  value: SettingValue,
): Settings {
  return {
    ...settings,
    [setting.key]: value,
    ...Object.fromEntries(setting.linked.map((key) => [key, value])),
  };
}

/** Whether house rules allow a change of this setting at all: a picture that may not be lowered, no clocks. */
function allowed(
  setting: Setting,
  towards: "speed" | "picture",
  { mayChange }: LeverSetting["rules"],
): boolean {
  if (towards === "speed" && setting.costs.picture > 0 && !mayChange.picture) return false;
  return setting.costs.heat < 2 || mayChange.clocks;
}

/**
 * Every single change that the house rules allow, from the settings in force.
 *
 * Settings without a known fastest value are tried at each other choice or switched, since only a test tells.
 */
export function leversFor({
  catalogue,
  settings,
  rules,
  spec,
  conditions,
  usefulScale = null,
}: LeverSetting): Lever[] {
  const made: Lever[] = [];
  const seen = new Set<string>();
  for (const setting of catalogue) {
    // Of settings that move together one lever is enough.
    if (setting.linked.some((key) => seen.has(key))) continue;
    seen.add(setting.key);
    const from = settings[setting.key] ?? setting.default;
    const add = (
      to: SettingValue,
      towards: Lever["towards"],
      more: Pick<Lever, "lifts" | "doubted" | "end"> = {},
    ) =>
      made.push({
        ...more,
        purpose: setting.purpose,
        steps: stepsLeft(setting, from, towards),
        key: setting.key,
        label: setting.label,
        kind: "setting",
        from,
        to,
        relieves: setting.relieves,
        costs: setting.costs,
        restart: setting.restart,
        towards,
        settings: withSetting(settings, setting, to),
        conditions: {},
        heats: setting.costs.heat > 0 && towards === "speed",
        pixelRatio:
          isScale(setting) && typeof from === "number" && typeof to === "number" ? (to / from) ** 2 : null,
      });
    // A limit is lifted by its least value, a hold on the rate by letting go.
    if (setting.purpose === "limiter" || setting.purpose === "hold rate") {
      const free = setting.type === "number" ? (setting.min ?? 0) : false;
      if (from !== free && setting.type !== "choice") add(free, "speed", { lifts: true });
      continue;
    }
    if (setting.fastest === null) {
      const others: SettingValue[] =
        setting.type === "switch"
          ? [!from]
          : setting.type === "choice"
            ? setting.choices.filter((choice) => choice !== from)
            : [];
      if (allowed(setting, "speed", rules)) others.forEach((to) => add(to, "speed"));
      continue;
    }
    for (const towards of ["speed", "picture"] as const) {
      const to = allowed(setting, towards, rules) ? nextValue(setting, from, towards) : null;
      if (to === null || to === from || (towards === "picture" && setting.costs.picture === 0)) continue;
      if (towards === "picture" && usefulScale !== null && isScale(setting) && Number(to) > usefulScale)
        continue;
      add(to, towards, towards === "speed" ? { end: setting.fastest } : {});
    }
    // What is said to be fastest is a guess; more pixels never are.
    if (allowed(setting, "speed", rules) && !isScale(setting))
      againstCatalogue(setting, from).forEach((to) => add(to, "speed", { doubted: true }));
  }
  const condition = (
    kind: ConditionLever,
    key: string,
    label: string,
    from: SettingValue | null,
    to: SettingValue,
    changed: Partial<Conditions>,
    heats: boolean,
    towards: Lever["towards"],
  ) =>
    made.push({
      key,
      label,
      kind,
      from,
      to,
      relieves: ["processor", "graphics"],
      costs: { ...none, heat: heats ? 2 : 0, risk: kind === "clocks" ? 2 : 0 },
      restart: false,
      towards,
      purpose: null,
      settings,
      conditions: changed,
      heats,
      pixelRatio: null,
    });
  if (rules.mayChange.powerMode) {
    const now = spec.powerModes.find(({ name }) => name === conditions.powerMode);
    for (const { name, watts, use } of spec.powerModes) {
      if (
        name === conditions.powerMode ||
        (use === "docked" && !conditions.docked) ||
        (use === "plugged in" && !conditions.pluggedIn)
      )
        continue;
      const more = watts !== null && now?.watts != null ? watts > now.watts : true;
      condition(
        "power mode",
        "power mode",
        "Power mode",
        conditions.powerMode,
        name,
        { powerMode: name },
        more,
        more ? "speed" : "battery",
      );
    }
  }
  if (rules.mayChange.clocks) {
    // Clock options stand in their order, the quietest first.
    const now = spec.clockOptions.indexOf(conditions.clocks ?? "");
    spec.clockOptions.forEach(
      (name, index) =>
        index !== now &&
        condition(
          "clocks",
          "clocks",
          "Clock option",
          conditions.clocks,
          name,
          { clocks: name },
          index > now,
          index > now ? "speed" : "battery",
        ),
    );
  }
  if (spec.cooling.coolerToHand && !conditions.cooler && rules.requires.cooler !== false)
    condition("cooler", "cooler", "Clip-on cooler", false, true, { cooler: true }, false, "speed");
  if (spec.batteryWh != null && conditions.pluggedIn === false && rules.requires.pluggedIn !== false)
    condition("mains", "mains", "Plugged in", false, true, { pluggedIn: true }, true, "speed");
  if ((spec.displays?.length ?? 0) > 1 && !conditions.docked && rules.requires.docked !== false)
    condition("dock", "dock", "Docked", false, true, { docked: true }, true, "speed");
  const driverNow =
    spec.setUps?.find(({ name }) => name === conditions.setUp)?.driver.version ?? spec.driver?.version;
  for (const { name, driver } of spec.setUps ?? [])
    if (name !== (conditions.setUp ?? null) && driver.version !== driverNow)
      condition(
        "set-up",
        "set-up",
        "Set-up",
        conditions.setUp ?? "usual",
        name,
        { setUp: name },
        false,
        "speed",
      );
  return made;
}

/** Settings with everything at its fastest that the rules allow: where "descend" starts. */
export function allFastest(catalogue: Setting[], settings: Settings, rules: LeverSetting["rules"]): Settings {
  return catalogue.reduce(
    (made, setting) =>
      setting.fastest !== null && allowed(setting, "speed", rules)
        ? withSetting(made, setting, setting.fastest)
        : made,
    settings,
  );
}
