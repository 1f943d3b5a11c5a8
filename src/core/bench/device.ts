/** The simulated device: how fast its two halves are under a power mode, and how it warms. */
export interface SimDevice {
  refreshHz: number;
  /** Watts that each half may take; speed goes with a power of them. */
  processorWatts: number;
  graphicsWatts: number;
  /** Speed of each half at `referenceWatts`, 1 = the workload's reference machine. */
  processorSpeed: number;
  graphicsSpeed: number;
  /** 0…1 of full clocks that the governor allows. */
  governor: number;
  processorMhz: number;
  graphicsMhz: number;
  idleWatts: number;
  roomC: number;
  /** °C above the room per watt, once settled. */
  degreesPerWatt: number;
  /** Time constant of warming, s. */
  settleSeconds: number;
  limitC: number;
  startC: number;
  memoryMb: number;
}

/** Watts at which a half runs at its nominal speed. */
export const referenceWatts = 10;

/** Speed goes with about the 0.4th power of watts near a processor's working point (common practice). */
export const speedAt = (watts: number) => (watts / referenceWatts) ** 0.4;

/** Share of full clocks that heat leaves: full below the limit less 2 °C, falling by a tenth a degree, never under half. */
export function heatFactor(celsius: number, limitC: number): number {
  return Math.min(1, Math.max(0.5, 1 - (celsius - (limitC - 2)) * 0.1));
}
