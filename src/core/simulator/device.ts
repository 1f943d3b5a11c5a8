/** How a governor sets clocks: from what it sees of the load. */
export interface SimGovernor {
  /** Least share of full clocks; 1 forces them. */
  floor: number;
  /** Share of one busy core that its reading shows: a mean over idle cores hides it. */
  sees: number;
}

/**
 * The simulated device under one set of conditions. Its behaviour follows from these; nothing of an outcome is
 * written down.
 */
export interface SimDevice {
  refreshHz: number;
  /** Speed of each half at full clocks; 1 = the workload's reference machine. */
  processorSpeed: number;
  graphicsSpeed: number;
  /** Full clocks. */
  processorMhz: number;
  graphicsMhz: number;
  /** Draw of each half, fully busy at full clocks. */
  processorMaxWatts: number;
  graphicsMaxWatts: number;
  idleWatts: number;
  /**
   * What the power mode allows in all, and how much of it the firmware gives the processor before graphics is
   * served.
   */
  budgetWatts: number;
  processorFirstWatts: number;
  /** Share of its full draw that a waiting processor still takes (threads that spin). */
  spin: number;
  /** Share of all cores that one title keeps busy: what a reading of the whole processor shows. */
  coreShare: number;
  governor: SimGovernor;
  roomC: number;
  /** °C above the room per watt, once settled. */
  degreesPerWatt: number;
  /** Time constant of warming, s. */
  settleSeconds: number;
  limitC: number;
  startC: number;
  memoryMb: number;
}

/** A device with what can be changed about it from run to run. */
export interface SimProfile {
  device: SimDevice;
  modes: Record<string, Pick<SimDevice, "budgetWatts" | "processorFirstWatts">>;
  governors: Record<string, SimGovernor>;
  /** What a clip-on cooler leaves of the warming. */
  coolerFactor: number;
  /** What plugging in makes of the budget. */
  pluggedFactor: number;
  /** Refresh of displays other than the first, by name. */
  displays: Record<string, number>;
}

export interface SimConditions {
  powerMode: string | null;
  clocks: string | null;
  display: string | null;
  pluggedIn: boolean | null;
  cooler: boolean;
  roomC: number | null;
}

/** A device under conditions; what they don't name stays as it is. */
export function deviceUnder(
  { device, modes, governors, coolerFactor, pluggedFactor, displays }: SimProfile,
  { powerMode, clocks, display, pluggedIn, cooler, roomC }: SimConditions,
): SimDevice {
  const mode = modes[powerMode ?? ""] ?? device;
  const more = pluggedIn ? pluggedFactor : 1;
  return {
    ...device,
    refreshHz: displays[display ?? ""] ?? device.refreshHz,
    budgetWatts: mode.budgetWatts * more,
    processorFirstWatts: mode.processorFirstWatts * more,
    governor: governors[clocks ?? ""] ?? device.governor,
    degreesPerWatt: device.degreesPerWatt * (cooler ? coolerFactor : 1),
    roomC: roomC ?? device.roomC,
    startC: device.startC + ((roomC ?? device.roomC) - device.roomC),
  };
}

/** Draw goes with the cube of the clock: voltage rises with it (common practice). */
export const wattsAt = (fullWatts: number, clock: number, busy: number) => fullWatts * clock ** 3 * busy;
/** The clock that a budget allows, as a share of full clocks. */
export const clockFor = (watts: number, fullWatts: number, busy: number) =>
  Math.cbrt(watts / (fullWatts * Math.max(busy, 1e-3)));

/**
 * Share of full clocks that heat leaves: full below the limit less 2 °C, falling by a tenth a degree, never
 * under 0.35.
 */
export function heatFactor(celsius: number, limitC: number): number {
  return Math.min(1, Math.max(0.35, 1 - (celsius - (limitC - 2)) * 0.1));
}

/** Share of full clocks that a governor asks for at a load. */
export function governorClock({ floor, sees }: SimGovernor, busy: number): number {
  return floor + (1 - floor) * Math.min(1, Math.max(0, (busy * sees - 0.3) / 0.6));
}

/** Clocks of the two halves, as shares of full ones, and what they draw. */
export interface SimPower {
  processor: number;
  graphics: number;
  watts: number;
}

/** Least share of full clocks that hardware falls to. */
const leastClock = 0.15;

/**
 * How governor, budget and heat settle clocks at a load.
 *
 * The processor is served first, up to its own share of the budget; graphics gets what is left. So a mode with
 * more watts can leave graphics fewer, where its firmware lets the processor boost.
 *
 * @param busyProcessor 0…1 over the last moments
 */
export function settledPower(
  device: SimDevice,
  busyProcessor: number,
  busyGraphics: number,
  celsius: number,
): SimPower {
  const { processorMaxWatts, graphicsMaxWatts, budgetWatts, idleWatts, processorFirstWatts, spin, governor } =
    device;
  const heat = heatFactor(celsius, device.limitC);
  const drawn = Math.max(busyProcessor, spin);
  const forHalves = Math.max(0.5, budgetWatts - idleWatts);
  const processor = Math.max(
    leastClock,
    Math.min(
      governorClock(governor, busyProcessor),
      clockFor(Math.min(processorFirstWatts, forHalves), processorMaxWatts, drawn),
    ) * heat,
  );
  const processorWatts = wattsAt(processorMaxWatts, processor, drawn);
  // Graphics drivers see their own load whole; the governor's floor is theirs too.
  const asked = governorClock({ floor: governor.floor, sees: Math.max(governor.sees, 0.95) }, busyGraphics);
  const graphics = Math.max(
    leastClock,
    Math.min(asked, clockFor(Math.max(0.3, forHalves - processorWatts), graphicsMaxWatts, busyGraphics)) * heat,
  );
  return {
    processor,
    graphics,
    watts: idleWatts + processorWatts + wattsAt(graphicsMaxWatts, graphics, busyGraphics),
  };
}
