import type { ProfileOf, SetValue } from "./layerValues";
import type { Layer } from "./layer";
import type { LayerValue } from "./shape";

type Place = Pick<LayerValue, "layer" | "systemId" | "titleId" | "buildId" | "key">;

/** A place in the layers with a setting, as one text: another for every other place. */
export const placeName = ({ layer, systemId, titleId, buildId, key }: Place) =>
  `${layer} ${systemId ?? ""} ${titleId ?? ""} ${buildId ?? ""} ${key}`;

/** Whether a value is in the layers of a title, system or rig that is asked for. */
function belongs(one: SetValue, { systemId, titleId, buildId }: ProfileOf): boolean {
  if (one.buildId !== null && one.buildId !== buildId) return false;
  if (one.layer === "rig") return true;
  return one.layer === "system"
    ? systemId !== null && one.systemId === systemId
    : titleId !== null && one.titleId === titleId;
}

/**
 * What stands in the layers, found by place and key: of every place the newest row, unless it says to inherit
 * again.
 */
export class HeldValues<Value extends SetValue = LayerValue> {
  /** The oldest first. */
  readonly all: readonly Value[];
  private readonly byPlace = new Map<string, Value>();

  /** @param values as they were set, in any order */
  constructor(values: readonly Value[]) {
    const newest = new Map<string, Value>();
    for (const value of values) {
      const name = placeName(value);
      if ((newest.get(name)?.id ?? -1) < value.id) newest.set(name, value);
    }
    for (const [name, value] of newest) if (value.value !== null) this.byPlace.set(name, value);
    this.all = [...this.byPlace.values()].sort((a, b) => a.id - b.id);
  }

  at(place: Place): Value | null {
    return this.byPlace.get(placeName(place)) ?? null;
  }

  /** The value that a layer holds: one for this very build before one for every build. */
  cell(layer: Layer, key: string, { systemId, titleId, buildId }: ProfileOf): Value | null {
    if ((layer === "system" && systemId === null) || (layer === "title" && titleId === null)) return null;
    const place = {
      layer,
      key,
      systemId: layer === "system" ? systemId : null,
      titleId: layer === "title" ? titleId : null,
    };
    return this.at({ ...place, buildId }) ?? this.at({ ...place, buildId: null });
  }

  /** What is set in the layers of a title, system or rig, the oldest first. */
  of(asked: ProfileOf): Value[] {
    return this.all.filter((one) => belongs(one, asked));
  }
}
