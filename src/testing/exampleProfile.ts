import type { LayerValue } from "@/core/profile/shape";

let made = 0;

/**
 * A made-up value of a layer, for tests: of system "s" or title "t", set by hand, newer than the one made
 * before it.
 */
export const exampleValue = (
  layer: LayerValue["layer"],
  key: string,
  value: LayerValue["value"],
  more: Partial<LayerValue> = {},
): LayerValue => ({
  id: ++made,
  layer,
  systemId: layer === "system" ? "s" : null,
  titleId: layer === "title" ? "t" : null,
  buildId: null,
  key,
  value,
  origin: { kind: "by hand" },
  measuredOn: null,
  at: "2026-11-01T10:00:00.000Z",
  actor: "you",
  ...more,
});
