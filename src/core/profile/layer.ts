/** Layers that values are set in, the widest first; the engine's defaults lie under them. */
export const layers = ["rig", "system", "title"] as const;
export type Layer = (typeof layers)[number];

/** What can differ from what evidence was measured on. */
export const staleKinds = ["revision", "driver", "build", "set-up"] as const;
export type Stale = (typeof staleKinds)[number];
