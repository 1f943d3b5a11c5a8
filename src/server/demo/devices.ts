import type { SimDevice, SimProfile } from "@/core/simulator";

/** Governors that see their load whole and follow it. */
const attentive: SimDevice["governor"] = { floor: 0.35, sees: 1 };

/** Boosts at the first sign of load. */
const eager: SimDevice["governor"] = { floor: 0.5, sees: 1.6 };

const tansy: SimProfile = {
  device: {
    refreshHz: 60,
    processorSpeed: 1.25,
    graphicsSpeed: 1.2,
    processorMhz: 4400,
    graphicsMhz: 2200,
    processorMaxWatts: 22,
    graphicsMaxWatts: 14,
    idleWatts: 2.5,
    budgetWatts: 19,
    processorFirstWatts: 8.5,
    spin: 0.9,
    coreShare: 0.45,
    governor: eager,
    roomC: 21,
    degreesPerWatt: 2.6,
    settleSeconds: 110,
    limitC: 95,
    startC: 44,
    memoryMb: 15_200,
  },
  modes: {
    Hush: { budgetWatts: 8, processorFirstWatts: 4 },
    Even: { budgetWatts: 14, processorFirstWatts: 6 },
    Brisk: { budgetWatts: 19, processorFirstWatts: 8.5 },
    Full: { budgetWatts: 28, processorFirstWatts: 21 },
  },
  governors: {},
  coolerFactor: 0.8,
  pluggedFactor: 1.15,
  displays: {},
};

const pipit: SimProfile = {
  device: {
    refreshHz: 120,
    processorSpeed: 1,
    graphicsSpeed: 0.8,
    processorMhz: 3000,
    graphicsMhz: 900,
    processorMaxWatts: 5,
    graphicsMaxWatts: 3.5,
    idleWatts: 1.2,
    budgetWatts: 8,
    processorFirstWatts: 5,
    spin: 0.4,
    coreShare: 0.4,
    governor: attentive,
    roomC: 21,
    degreesPerWatt: 11.5,
    settleSeconds: 240,
    limitC: 75,
    startC: 33,
    memoryMb: 7300,
  },
  modes: {
    usual: { budgetWatts: 8, processorFirstWatts: 5 },
    saver: { budgetWatts: 3.4, processorFirstWatts: 1.6 },
  },
  governors: {},
  coolerFactor: 0.62,
  pluggedFactor: 1,
  displays: {},
};

const shale: SimProfile = {
  device: {
    refreshHz: 60,
    processorSpeed: 0.8,
    graphicsSpeed: 0.7,
    processorMhz: 2300,
    graphicsMhz: 800,
    processorMaxWatts: 7,
    graphicsMaxWatts: 4,
    idleWatts: 2.5,
    budgetWatts: 20,
    processorFirstWatts: 10,
    spin: 0.4,
    coreShare: 0.35,
    governor: { floor: 0.25, sees: 0.42 },
    roomC: 21,
    degreesPerWatt: 4.4,
    settleSeconds: 150,
    limitC: 85,
    startC: 38,
    memoryMb: 7600,
  },
  modes: {},
  governors: {
    quiet: { floor: 0.25, sees: 0.32 },
    balanced: { floor: 0.25, sees: 0.42 },
    forced: { floor: 1, sees: 1 },
  },
  coolerFactor: 1,
  pluggedFactor: 1,
  displays: {},
};

const dovecote: SimProfile = {
  device: {
    refreshHz: 60,
    processorSpeed: 1.5,
    graphicsSpeed: 2,
    processorMhz: 4600,
    graphicsMhz: 2000,
    processorMaxWatts: 35,
    graphicsMaxWatts: 38,
    idleWatts: 9,
    budgetWatts: 65,
    processorFirstWatts: 24,
    spin: 0.4,
    coreShare: 0.5,
    governor: attentive,
    roomC: 21,
    degreesPerWatt: 0.85,
    settleSeconds: 90,
    limitC: 95,
    startC: 40,
    memoryMb: 15_400,
  },
  modes: {},
  governors: {},
  coolerFactor: 1,
  pluggedFactor: 1,
  displays: {},
};

/** The simulated rigs by name. Their physics is all that is given; how titles fare on them is computed. */
export const devices: Record<string, SimProfile> = {
  Tansy: tansy,
  Pipit: pipit,
  Shale: shale,
  Dovecote: dovecote,
};
