/** How a low is worked out; always said beside the figure. */
export const lowMethods = ["worstTime", "worstMean", "percentile"] as const;
export type LowMethod = (typeof lowMethods)[number];
