export const faultKinds = ["picture", "sound", "control", "crash", "freeze", "wrong speed", "missing"] as const;
/** Worst last; what each does to a verdict is `judge`'s. */
export const faultSeverities = ["slight", "visible", "severe", "blocking"] as const;
export type Severity = (typeof faultSeverities)[number];
/** A fault that holds an arm down, whatever its rate. */
export const outweighs = (severity: Severity) => severity === "severe" || severity === "blocking";
