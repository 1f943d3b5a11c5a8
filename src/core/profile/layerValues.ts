import type { SettingValue } from "@/core/kit";
import type { Said } from "@/core/said";

/** Layers that values are set in, the widest first; the engine's defaults lie under them. */
export const layers = ["rig", "system", "title"] as const;

export type Layer = (typeof layers)[number];

/** Where a value came from. */
export type Origin =
  | { kind: "trial"; jobId: string; trialId: string; number: number; proof: Said | null }
  /** As a run was made, held against nothing else. */
  | { kind: "run"; jobId: string; runId: string; number: number }
  | { kind: "by hand" }
  | { kind: "file"; name: string }
  /** Moved up from titles that shared it. */
  | { kind: "lifted"; titles: string[] }
  /** Brought from another rig or from somebody else's recipe: a hypothesis here. */
  | { kind: "carried"; from: string };

/** What evidence was measured on; another of any of these makes it stale. */
export interface MeasuredOn {
  revisionId: string;
  revision: number;
  driver: string;
  /** The rig's set-up by its name; absent for its usual one. */
  setUp?: string | null;
  buildId: string;
  build: string;
}

/** A rig as it is now. */
export interface RigNow extends MeasuredOn {
  /** Drivers of its further set-ups, by name. */
  drivers: Readonly<Record<string, string>>;
}

/**
 * A value as it was set, or (null) made to inherit again. Newer rows stand over older ones of the same place.
 */
export interface LayerValue {
  id: number;
  layer: Layer;
  systemId: string | null;
  titleId: string | null;
  /** Only for this build; null for every one. */
  buildId: string | null;
  key: string;
  value: SettingValue | null;
  origin: Origin;
  measuredOn: MeasuredOn | null;
  at: Date;
  actor: string;
}

/** As much of it as tells what holds. */
export type SetValue = Pick<LayerValue, "id" | "layer" | "systemId" | "titleId" | "buildId" | "key" | "value">;

/** Whose profile is asked for. */
export interface ProfileOf {
  systemId: string | null;
  titleId: string | null;
  buildId: string | null;
}
