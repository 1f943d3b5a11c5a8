import { Stale } from "./layer";
import type { Proof, Confirmation, Liftable } from "./shape";
import { type RigNow, type SetValue, type ProfileOf } from "./layerValues";
import { layers, type Layer } from "./layer";
import type { MeasuredOn, LayerValue } from "./shape";
import { group } from "d3-array";
import { driverKey, type Setting, type Settings, type SettingValue } from "@/core/kit";
import { besideKeys } from "./beside";
import type { HeldValues } from "./heldValues";

/** One setting over the layers. */
export interface ProfileRow<Value = LayerValue> {
  key: string;
  label: string;
  default: SettingValue;
  cells: Record<Layer, Value | null>;
  /** The layer whose value holds; null where the engine's default does. */
  from: Layer | null;
  value: SettingValue;
  /**
   * By its evidence: `proven` by a decided trial as the rig is now; `against` where it was kept though the runs
   * said otherwise.
   */
  standing: Proof;
  /** What differs from what its evidence was measured on. */
  stale: Stale[];
  /**
   * Settings that were held along with it in every trial that proves it: which of them did it isn't told apart.
   */
  together: string[];
  /**
   * Trials that held the value against another: of this title, or of any of the system's where no title is
   * asked for.
   */
  confirmations: Confirmation[];
}

type CatalogueRow = Pick<Setting, "key" | "label" | "default"> & Partial<Pick<Setting, "linked">>;

/**
 * What differs between what was measured on and what there is now; a driver is held against that of the same
 * set-up.
 */
export function staleBy(
  then: Pick<MeasuredOn, "revisionId" | "driver" | "buildId" | "setUp">,
  now: RigNow,
): Stale[] {
  const driver = then.setUp ? now.drivers[then.setUp] : now.driver;
  const isRevised = then.revisionId !== now.revisionId && then.driver === driver;
  return [
    ...(driver === undefined ? (["set-up"] as const) : then.driver !== driver ? (["driver"] as const) : []),
    ...(isRevised ? (["revision"] as const) : []),
    ...(then.buildId !== now.buildId ? (["build"] as const) : []),
  ];
}

/**
 * Keys that were held along with one in every trial there is. Linked ones aren't another change, nor is a rate
 * with the limiter that holds it.
 */
function alwaysWith({ key, linked = [] }: CatalogueRow, proving: Confirmation[]): string[] {
  if (key === besideKeys.rate) return [];
  const [first, ...more] = proving.map(({ kept }) =>
    Object.keys(kept).filter((other) => other !== key && other !== besideKeys.rate && !linked.includes(other)),
  );
  return (first ?? []).filter((other) => more.every((keys) => keys.includes(other)));
}

/**
 * A profile, setting by setting: what each layer holds, which of them holds, and how far it is proven.
 * @param now the rig as it is, with the build that is asked for
 */
export function profileRows<Value extends SetValue>(
  catalogue: CatalogueRow[],
  held: HeldValues<Value>,
  of: ProfileOf,
  now: RigNow,
  confirmations: readonly Confirmation[],
  /** Titles whose trials count as evidence; the one that is asked for unless said otherwise. */
  evidenceOf: readonly string[] = of.titleId === null ? [] : [of.titleId],
): ProfileRow<Value>[] {
  const telling = new Set(evidenceOf);
  const evidence = confirmations.filter(({ titleId }) => telling.has(titleId));
  // Of drivers side by side the one that holds here is what evidence is held against.
  const driver = catalogue.some(({ key }) => key === driverKey)
    ? layers.flatMap((layer) => held.cell(layer, driverKey, of)?.value ?? []).at(-1)
    : undefined;
  const here = driver === undefined ? now : { ...now, driver: String(driver) };
  return catalogue.map((setting) => {
    const { key, label, default: own } = setting;
    const cells = {
      rig: held.cell("rig", key, of),
      system: held.cell("system", key, of),
      title: held.cell("title", key, of),
    };
    const from = layers.findLast((layer) => cells[layer] !== null) ?? null;
    const value = (from && cells[from]?.value) ?? own;
    const proving = evidence.filter(({ kept }) => Object.hasOwn(kept, key) && kept[key] === value);
    const fresh = proving.filter((one) => staleBy(one, here).length === 0);
    const last = proving.at(-1);
    const standing: Proof =
      from === null
        ? "default"
        : fresh.some(({ against, open }) => !against && !open)
          ? "proven"
          : fresh.some(({ against }) => !against)
            ? "checked"
            : fresh.length > 0
              ? "against"
              : last
                ? "stale"
                : "untested";
    return {
      key,
      label,
      default: own,
      cells,
      from,
      value,
      standing,
      stale: standing === "stale" && last ? staleBy(last, here) : [],
      together: alwaysWith(setting, fresh.length > 0 ? fresh : proving),
      confirmations: proving,
    };
  });
}

/**
 * Values that the layers set for a title, whatever the catalogue says of them; what only inherits isn't there.
 */
export function valuesInForce(held: HeldValues<SetValue>, of: ProfileOf): Settings {
  const keys = new Set(held.of(of).map(({ key }) => key));
  return Object.fromEntries(
    [...keys].flatMap((key) => {
      const value = layers.flatMap((layer) => held.cell(layer, key, of)?.value ?? []).at(-1);
      return value === undefined ? [] : [[key, value] as const];
    }),
  );
}

/** The settings that a job of a title begins with. */
export function effectiveSettings(
  catalogue: Pick<Setting, "key" | "default">[],
  held: HeldValues<SetValue>,
  of: ProfileOf,
): Settings {
  const set = valuesInForce(held, of);
  return Object.fromEntries(catalogue.map(({ key, default: own }) => [key, set[key] ?? own]));
}

/** Titles that set a value alike, at least; common practice. */
const sharing = 2;

/** What could be moved up from titles to their system. */
export function liftable(
  catalogue: Pick<Setting, "key" | "label" | "default">[],
  held: HeldValues<SetValue>,
  systemId: string,
  titles: string[],
): Liftable[] {
  const here = new Set(titles);
  const set = group(
    held.all.filter(
      ({ layer, titleId, buildId }) => layer === "title" && buildId === null && here.has(titleId ?? ""),
    ),
    ({ key }) => key,
  );
  const ofSystem = { systemId, titleId: null, buildId: null };
  return catalogue.flatMap(({ key, default: own }) => {
    const above = held.cell("system", key, ofSystem) ?? held.cell("rig", key, ofSystem);
    const inherited = above?.value ?? own;
    const bySetting = set.get(key) ?? [];
    const setHere = new Set(bySetting.map(({ titleId }) => titleId));
    return [...group(bySetting, ({ value }) => value)].flatMap(([value, alike]) => {
      const titleIds = alike.flatMap(({ titleId }) => titleId ?? []);
      if (value === null || value === inherited || titleIds.length < sharing) return [];
      const changes = titles.filter((id) => !setHere.has(id)).map((titleId) => ({ titleId, from: inherited }));
      return [{ key, value, titleIds, changes }];
    });
  });
}

/** Values of one layer that say what the layer above says already. */
export function droppable(rows: ProfileRow[], layer: Layer): string[] {
  const above = layers.slice(0, layers.indexOf(layer));
  return rows.flatMap(({ key, cells, default: own }) => {
    const cell = cells[layer];
    if (!cell) return [];
    const upper = above.findLast((each) => cells[each] !== null);
    return cell.value === ((upper && cells[upper]?.value) ?? own) ? [key] : [];
  });
}

/** One setting that two profiles don't share. */
export interface ProfileDifference {
  key: string;
  label: string;
  a: { value: SettingValue; standing: Proof } | null;
  b: { value: SettingValue; standing: Proof } | null;
}

/**
 * Two profiles held against one another, setting by setting; a setting that one engine doesn't have is null
 * there.
 */
export function profileDifferences(a: ProfileRow[], b: ProfileRow[]): ProfileDifference[] {
  const side = (row: ProfileRow | undefined) => (row ? { value: row.value, standing: row.standing } : null);
  const keys = [...new Set([...a, ...b].map(({ key }) => key))];
  return keys.flatMap((key) => {
    const [left, right] = [a.find((row) => row.key === key), b.find((row) => row.key === key)];
    if (left && right && left.value === right.value) return [];
    return [{ key, label: left?.label ?? right?.label ?? key, a: side(left), b: side(right) }];
  });
}
