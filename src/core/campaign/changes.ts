/** From one version to the next. */
export const changes = ["better", "worse", "unchanged", "fixed", "newly broken", "open"] as const;
export type VersionChange = (typeof changes)[number];
