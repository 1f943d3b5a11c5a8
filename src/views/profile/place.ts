import type { ProfileView } from "@/contract";
import { layers, type Layer } from "@/core/profile";

/** A cell of the table: a setting in a layer. */
export interface LayerCell {
  key: string;
  layer: Layer;
}

/** Says what came of a change, and shows the profile anew. */
export type SayChanged = (
  sending: Promise<{ ok: boolean; refusal?: { title: string; fix: string } }>,
) => Promise<void>;

/** Values for one layer of what is shown. */
export function placed(
  { rig, engine, systemId, titleId, buildId, saw }: ProfileView,
  layer: Layer,
  values: { key: string; value: string | number | boolean | null }[],
  onlyBuild = false,
) {
  return {
    rigId: rig.id,
    engineId: engine.id,
    layer,
    systemId: layer === "system" ? systemId : null,
    titleId: layer === "title" ? titleId : null,
    buildId: onlyBuild ? buildId : null,
    values,
    saw,
  };
}

/** Layers that values can be set in now: a title's needs a title. */
export const openLayers = ({ titleId, systemId }: Pick<ProfileView, "titleId" | "systemId">): Layer[] =>
  layers.filter((layer) =>
    layer === "title" ? titleId !== null : layer === "system" ? systemId !== "" : true,
  );
