import { setTimeout as wait } from "node:timers/promises";
import { readingOf, type DeviceReading, type Kept } from "@/core/device";
import { kernelTree, remembering } from "./kernelTree";

/** How often a device is read, and how long, s. */
export interface Pace {
  seconds: number;
  rate: number;
}

/**
 * Reads the device again and again.
 * @param take gets each reading and when it was made, ms from the start
 * @returns how long it took, ms
 */
export async function readings(
  root: string,
  { seconds, rate }: Pace,
  take: (reading: DeviceReading, at: number) => void,
  stop?: AbortSignal,
): Promise<number> {
  const tree = remembering(kernelTree(root), () => performance.now());
  const begun = performance.now();
  let kept: Kept | null = null;
  const told = new Set<string>();
  for (let k = 0; !stop?.aborted; k++) {
    const at = performance.now() - begun;
    const { reading, kept: now } = readingOf(tree, kept, at);
    kept = now;
    for (const [path, why] of Object.entries(reading.refused))
      if (!told.has(path)) {
        told.add(path);
        process.stderr.write(`${path}: ${why}\n`);
      }
    take(reading, at);
    const next = ((k + 1) * 1000) / rate;
    if (next >= seconds * 1000) break;
    await wait(Math.max(0, next - (performance.now() - begun)));
  }
  return performance.now() - begun;
}
