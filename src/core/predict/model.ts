/*
 * Frame time of a title on a rig at p million pixels: max(c·u, a·u + b·v·p), the title's own work over the rig's two speeds
 * (processor u, graphics v). All five are kept as logs; the maximum is smooth, so that it has a slope
 * everywhere.
 */

/** A title's own work, as logs: its processor alone, and the two that go together. */
export interface TitleWork {
  c: number;
  a: number;
  b: number;
}

/** A rig's two slownesses, as logs. */
export interface RigPace {
  u: number;
  v: number;
}

/** How sharp the maximum is: the power of a p-norm. */
export const usualSharpness = 8;

export interface Slopes {
  /** Log frame time, ms. */
  value: number;
  /** Its slope by c, a, b, u and v. */
  slopes: [number, number, number, number, number];
}

/**
 * Log frame time with its slopes.
 * @param pixels in millions, > 0
 */
export function frameTimeOf(
  { c, a, b }: TitleWork,
  { u, v }: RigPace,
  pixels: number,
  sharpness = usualSharpness,
): Slopes {
  const alone = c + u;
  const [processor, graphics] = [a + u, b + v + Math.log(pixels)];
  const most = Math.max(processor, graphics);
  const sum = Math.exp(processor - most) + Math.exp(graphics - most);
  const together = most + Math.log(sum);
  const shareA = Math.exp(processor - most) / sum;
  const top = Math.max(alone, together);
  const [x, y] = [Math.exp(sharpness * (alone - top)), Math.exp(sharpness * (together - top))];
  const shareAlone = x / (x + y),
    shareTogether = y / (x + y);
  return {
    value: top + Math.log(x + y) / sharpness,
    slopes: [
      shareAlone,
      shareTogether * shareA,
      shareTogether * (1 - shareA),
      shareAlone + shareTogether * shareA,
      shareTogether * (1 - shareA),
    ],
  };
}
