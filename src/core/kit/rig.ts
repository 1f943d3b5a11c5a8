import { first } from "./first";
import type { Display, RigSpec, Conditions } from "./rigSchema";

/**
 * A rig as one of its set-ups has it: with that one's system and driver. The rig's own where none is named;
 * null where it has no such set-up.
 */
export function inSetUp(spec: RigSpec, name: string | null | undefined): RigSpec | null {
  if (!name) return spec;
  const found = spec.setUps?.find((each) => each.name === name);
  return found ? { ...spec, system: found.system, driver: found.driver } : null;
}

/** A rig of which the name and the refresh of its screen are known, and nothing else. */
export const plainRig = (refreshHz: number): RigSpec => ({
  kind: "",
  processor: { clusters: [] },
  graphics: { units: null, clockGhz: null },
  memoryGb: null,
  storage: "",
  system: { version: "", date: null },
  driver: { version: "", date: null },
  displays: [
    {
      name: "Screen",
      connection: "built in",
      width: null,
      height: null,
      refreshHz: [refreshHz],
      diagonalInch: null,
    },
  ],
  powerModes: [],
  clockOptions: [],
  cooling: { kind: "", coolerToHand: false },
  batteryWh: null,
  temperatureLimitC: null,
});

/** Battery energy from a cell's label. @example batteryWh(4000, 3.85) // → 15.4 */
export function batteryWh(milliampHours: number, volts: number): number {
  return (milliampHours * volts) / 1000;
}

/** The display that goes by a name, else the rig's first. */
export const displayIn = ({ displays }: Pick<RigSpec, "displays">, name: string | null | undefined) =>
  displays.find((display) => display.name === name) ?? first(displays);

/** Whether a display's size in pixels is known. */
export const hasSize = <D extends Pick<Display, "width" | "height">>(
  display: D,
): display is D & { width: number; height: number } => display.width !== null && display.height !== null;

/** Share of a rig's memory that its system leaves to an engine; the product's own reckoning. */
const leftShare = 0.93;
/** Memory that is left to an engine, MB; null where the rig's isn't known. */
export const memoryLeft = ({ memoryGb }: Pick<RigSpec, "memoryGb">) =>
  memoryGb === null ? null : memoryGb * 1024 * leftShare;

/** Conditions a rig starts with: its first mode and display, on battery where it has one. */
export function firstConditions(spec: RigSpec): Conditions {
  return {
    powerMode: spec.powerModes[0]?.name ?? null,
    clocks: spec.clockOptions[0] ?? null,
    display: first(spec.displays).name,
    pluggedIn: spec.batteryWh === null && spec.powerModes.length === 0 ? null : spec.batteryWh === null,
    docked: false,
    cooler: false,
    roomC: null,
    capturePath: "engine log",
  };
}

/**
 * Conditions that a rig is put on the bench with: those it had there last, in as far as it still has them; its
 * first where it never lay there.
 */
export function conditionsOnBench(spec: RigSpec, last: Conditions | null): Conditions {
  const first = firstConditions(spec);
  if (!last) return first;
  const still = (value: string | null | undefined, names: string[], own: string | null) =>
    value && names.includes(value) ? value : own;
  return {
    ...last,
    powerMode: still(
      last.powerMode,
      spec.powerModes.map(({ name }) => name),
      first.powerMode,
    ),
    clocks: still(last.clocks, spec.clockOptions, first.clocks),
    display: still(
      last.display,
      spec.displays.map(({ name }) => name),
      first.display,
    ),
    setUp: still(last.setUp, spec.setUps?.map(({ name }) => name) ?? [], null),
    cooler: last.cooler && spec.cooling.coolerToHand,
  };
}
