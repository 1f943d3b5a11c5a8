/**
 * Delay that a sound queue adds, ms.
 * @param frames queued; @param samplesPerFrame samples in each; @param sampleRate Hz
 * @example audioQueueDelayMs(64, 32, 32_000) // → 64
 */
export function audioQueueDelayMs(frames: number, samplesPerFrame: number, sampleRate: number): number {
  return (1000 * frames * samplesPerFrame) / sampleRate;
}
