/** Lights, the brightest first. */
export const grades = ["steady", "flickers", "dims", "gutters", "dark"] as const;
export type Grade = (typeof grades)[number];
