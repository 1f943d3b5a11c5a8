import { lawAt } from "./law";
import type { ScaleLaw } from "./shape";

/** Frame time that a fitted law gives so many rendered megapixels, ms. */
export const frameTimeAt = (law: ScaleLaw, megapixels: number): number =>
  lawAt(
    { floor: law.floorSeen ? law.floorMs : null, intercept: law.interceptMs, slope: law.msPerMegapixel },
    megapixels,
  );
