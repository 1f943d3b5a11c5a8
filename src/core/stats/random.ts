import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";

/** A seeded stream of numbers: the core's only randomness. */
export interface Random {
  /** 0 ≤ x < 1 */
  uniform(): number;
  /** A whole number 0 … below − 1. */
  whole(below: number): number;
  /** Standard normal. */
  normal(): number;
  /** A stream of its own, so that adding a draw here moves nothing there. */
  split(label: number): Random;
}

/**
 * Seeded random numbers over xoroshiro128+.
 * @param seed any whole number; equal seeds give equal streams
 */
export function seeded(seed: number): Random {
  const generator = xoroshiro128plus(seed | 0);
  const uniform = () => (generator.next() >>> 0) / 4294967296;
  let spare: number | null = null;
  return {
    uniform,
    whole: (below) => Math.floor(uniform() * below),
    normal() {
      if (spare !== null) {
        const kept = spare;
        spare = null;
        return kept;
      }
      // Marsaglia's polar method gives two at a time.
      for (;;) {
        const a = 2 * uniform() - 1,
          b = 2 * uniform() - 1;
        const s = a * a + b * b;
        if (s === 0 || s >= 1) continue;
        const scale = Math.sqrt((-2 * Math.log(s)) / s);
        spare = b * scale;
        return a * scale;
      }
    },
    split: (label) => seeded(Math.imul(seed ^ 0x9e3779b9, 2654435761) + Math.imul(label + 1, 40503)),
  };
}

/** A draw from Student's t by the polar method of Bailey (1994). */
export function studentT(random: Random, freedom: number): number {
  const radius = Math.sqrt(freedom * ((1 - random.uniform()) ** (-2 / freedom) - 1));
  return radius * Math.cos(2 * Math.PI * random.uniform());
}

/**
 * A draw from χ² with `freedom` degrees of freedom, by the method of Marsaglia & Tsang (2000) for the gamma
 * distribution.
 */
export function chiSquared(random: Random, freedom: number): number {
  // A shape under 1 is drawn one higher and brought back.
  const shape = freedom / 2;
  if (shape < 1) return chiSquared(random, freedom + 2) * (1 - random.uniform()) ** (1 / shape);
  const d = shape - 1 / 3,
    c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = random.normal();
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(1 - random.uniform()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return 2 * d * v;
  }
}
