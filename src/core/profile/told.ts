import { HeldValues } from "./heldValues";
import type { SetValue } from "./layerValues";
import type { LayerValue } from "./shape";

/**
 * A value as the store tells it, many in one text: a profile may hold twenty thousand, and a row each takes
 * several times as long to read.
 */
export type StoredValue = [
  id: number,
  layer: SetValue["layer"],
  systemId: string | null,
  titleId: string | null,
  buildId: string | null,
  key: string,
  value: SetValue["value"],
];
/** The same with where it came from, and when (ISO 8601). */
export type ToldWithOrigin = [
  ...StoredValue,
  origin: LayerValue["origin"],
  measuredOn: LayerValue["measuredOn"],
  at: string,
  actor: string,
];

const valueOf = ([id, layer, systemId, titleId, buildId, key, value]:
  StoredValue | ToldWithOrigin): SetValue => ({
  id,
  layer,
  systemId,
  titleId,
  buildId,
  key,
  value,
});

export const heldIn = (told: StoredValue[]): HeldValues<SetValue> => new HeldValues(told.map(valueOf));

export const heldWithOrigins = (told: ToldWithOrigin[]): HeldValues =>
  new HeldValues(
    told.map((each) => {
      const [, , , , , , , origin, measuredOn, at, actor] = each;
      return { ...valueOf(each), origin, measuredOn, at: new Date(at).toISOString(), actor };
    }),
  );
