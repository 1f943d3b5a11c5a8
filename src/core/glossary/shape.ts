/** What an example's drawing shows; drawn by one component from these figures alone. */
export type Drawing =
  /** Values side by side; those at `lit` stand out, and a line lies across at `line`. */
  | { kind: "bars"; values: number[]; unit: string; line?: number; lit?: number[] }
  /** An estimate with its interval against zero and the smallest difference worth having, all in %. */
  | { kind: "interval"; low: number; estimate: number; high: number; margin: number }
  /** Points joined by a line, the other axis' `line` across it. */
  | { kind: "curve"; points: [x: number, y: number][]; x: string; y: string; line?: number }
  /** Things in their order, each belonging to the one before or following it. */
  | { kind: "chain"; parts: string[] }
  /** Lights by their words, the brightest first. */
  | { kind: "lights"; lights: ("steady" | "flickers" | "dims" | "gutters" | "dark")[] };

/** What a figure or a word of the application means. */
export interface Explanation {
  /** One plain sentence. */
  is: string;
  /** How the figure is made, or where the thing is met. */
  made: string;
  /** Where the definition is from. */
  source: string;
  /** What is good and what is bad. */
  good: string;
  example: string;
  drawing: Drawing;
}
