import type { SimDevice } from "@/core/bench";

const tansy: SimDevice = {
  refreshHz: 60, processorWatts: 7, graphicsWatts: 7, processorSpeed: 1, graphicsSpeed: 1, governor: 1, processorMhz: 3600, graphicsMhz: 1900,
  idleWatts: 3, roomC: 21, degreesPerWatt: 2.6, settleSeconds: 110, limitC: 95, startC: 44, memoryMb: 15_200,
};

const pipit: SimDevice = {
  refreshHz: 120, processorWatts: 4, graphicsWatts: 3, processorSpeed: 0.9, graphicsSpeed: 0.8, governor: 1, processorMhz: 2900, graphicsMhz: 850,
  idleWatts: 1.2, roomC: 21, degreesPerWatt: 5.5, settleSeconds: 240, limitC: 75, startC: 33, memoryMb: 7300,
};

/** The simulated rigs by name; how they behave is what the demo's stories need. */
export const devices: Record<string, SimDevice> = { Tansy: tansy, Pipit: pipit };
