import type { ConfigFormat, NewSystem, NewTitle, RigSpec, Setting } from "@/core/kit";

/** The lending library's kit. All of it is invented. */

const noDate = { version: "as shipped", date: null };

export const rigs: { name: string; spec: RigSpec }[] = [
  {
    name: "Tansy",
    spec: {
      kind: "seven-inch handheld PC",
      processor: { clusters: [{ cores: 8, baseGhz: 2.6, boostGhz: 4.4 }] },
      graphics: { units: 12, clockGhz: 2.2 },
      memoryGb: 16,
      storage: "512 GB solid state",
      system: noDate,
      driver: { version: "3.4", date: "2026-08-02" },
      displays: [
        {
          name: "own screen",
          connection: "built in",
          width: 1440,
          height: 900,
          refreshHz: [60],
          diagonalInch: 7,
        },
      ],
      powerModes: [
        { name: "Hush", watts: 8, use: "any" },
        { name: "Even", watts: 14, use: "any" },
        { name: "Brisk", watts: 19, use: "any" },
        { name: "Full", watts: 28, use: "any" },
      ],
      clockOptions: [],
      cooling: { kind: "fan", coolerToHand: false },
      batteryWh: 48,
      temperatureLimitC: 95,
    },
  },
  {
    name: "Pipit",
    spec: {
      kind: "phone",
      processor: {
        clusters: [
          { cores: 1, baseGhz: 1.8, boostGhz: 3 },
          { cores: 3, baseGhz: 1.6, boostGhz: 2.6 },
          { cores: 4, baseGhz: 1.2, boostGhz: 1.9 },
        ],
      },
      graphics: { units: null, clockGhz: 0.9 },
      memoryGb: 8,
      storage: "256 GB flash",
      system: noDate,
      driver: { version: "615", date: "2026-05-11" },
      displays: [
        {
          name: "own screen",
          connection: "built in",
          width: 2340,
          height: 1080,
          refreshHz: [120, 60],
          diagonalInch: 6.3,
        },
      ],
      powerModes: [
        { name: "usual", watts: 6, use: "any" },
        { name: "saver", watts: 3, use: "any" },
      ],
      clockOptions: [],
      cooling: { kind: "none", coolerToHand: true },
      batteryWh: 18.5,
      temperatureLimitC: 75,
    },
  },
  {
    name: "Shale",
    spec: {
      kind: "single-board computer",
      processor: {
        clusters: [
          { cores: 4, baseGhz: 1.4, boostGhz: 2.3 },
          { cores: 4, baseGhz: 1, boostGhz: 1.8 },
        ],
      },
      graphics: { units: 4, clockGhz: 0.8 },
      memoryGb: 8,
      storage: "64 GB card",
      system: noDate,
      driver: { version: "22.1", date: "2026-02-19" },
      displays: [
        { name: "HDMI", connection: "cable", width: 1920, height: 1080, refreshHz: [60], diagonalInch: 24 },
      ],
      powerModes: [{ name: "5 V 4 A", watts: 20, use: "plugged in" }],
      clockOptions: ["quiet", "balanced", "forced"],
      cooling: { kind: "heat sink, fan", coolerToHand: false },
      batteryWh: null,
      temperatureLimitC: 85,
    },
  },
  {
    name: "Dovecote",
    spec: {
      kind: "mini PC",
      processor: { clusters: [{ cores: 6, baseGhz: 3.6, boostGhz: 4.6 }] },
      graphics: { units: 16, clockGhz: 2 },
      memoryGb: 16,
      storage: "1 TB solid state",
      system: noDate,
      driver: { version: "3.4", date: "2026-08-02" },
      displays: [
        {
          name: "television",
          connection: "cable",
          width: 3840,
          height: 2160,
          refreshHz: [60],
          diagonalInch: 55,
        },
      ],
      powerModes: [{ name: "mains", watts: 65, use: "plugged in" }],
      clockOptions: [],
      cooling: { kind: "fan", coolerToHand: false },
      batteryWh: null,
      temperatureLimitC: 95,
    },
  },
];

const screen = (width: number, height: number, pixelAspect = 1) => ({ width, height, pixelAspect });
const ntsc = { region: "60", hz: 59.94 },
  pal = { region: "50", hz: 50 },
  sixty = { region: "", hz: 60 };

export const systems: NewSystem[] = [
  { name: "Corvid 8", screens: [screen(256, 224)], rates: [ntsc], note: "flat pictures" },
  { name: "Cinder 32", screens: [screen(320, 240)], rates: [ntsc, pal], note: "first 3D" },
  { name: "Satchel", screens: [screen(480, 270)], rates: [sixty], note: "portable" },
  { name: "Twofold", screens: [screen(384, 240), screen(320, 240)], rates: [sixty], note: "two screens" },
  { name: "Gallery DX", screens: [screen(640, 448)], rates: [ntsc, pal], note: "disc era" },
  { name: "Meridian", screens: [screen(1280, 720)], rates: [{ region: "", hz: 30 }, sixty], note: "HD era" },
];

type DemoTitle = Omit<NewTitle, "systemId"> & { system: string };
const title = (
  system: string,
  name: string,
  hardness: NewTitle["hardness"],
  nativeFps: number,
  worst: [name: string, how: string],
  more: Partial<DemoTitle> = {},
): DemoTitle => ({
  system,
  name,
  hardness,
  nativeFps,
  tied: true,
  region: "",
  memoryNeededGb: null,
  patches: [],
  notes: "",
  scenes: [
    { name: "opening", how: "from power-on to the first control", seconds: 60, worst: false },
    { name: worst[0], how: worst[1], seconds: 60, worst: true },
  ],
  ...more,
});

export const titles: DemoTitle[] = [
  title("Corvid 8", "Inkwell Pilots", "easy", 59.94, ["the inkstorm", "third flight, hold the upper lane"]),
  title("Cinder 32", "Night Tram to Ossery", "easy", 59.94, ["the depot", "ride to the last stop"]),
  title("Cinder 32", "Copper Regatta", "hard", 59.94, ["the lock gates", "second race, wait for all boats"]),
  title("Corvid 8", "Lantern Post", "typical", 59.94, ["the night mail", "second week, every street lit"]),
  title("Cinder 32", "Three Weirs", "typical", 59.94, ["the spillway", "open all gates"]),
  title("Cinder 32", "Brass Ferry", "typical", 59.94, ["the crossing", "noon sailing, full deck"]),
  title("Cinder 32", "Slate Harbour", "easy", 59.94, ["the crane", "unload the third ship"]),
  title("Satchel", "Kite Weather", "typical", 60, ["the squall", "second island, afternoon"]),
  title("Satchel", "Gull and Anchor", "easy", 60, ["the breakwater", "first storm"]),
  title("Twofold", "The Orchard Ledger", "easy", 30, ["market day", "end of the first week"]),
  title("Twofold", "Glasshouse Duel", "hard", 60, ["four on the roof", "four players, roof stage"]),
  title("Twofold", "The Drowned Gallery", "typical", 20, ["the long corridor", "walk every room in turn"]),
  title("Twofold", "Salt and Semaphore", "hard", 60, ["the signal tower", "both flags, wind up"]),
  title("Twofold", "Tin Harbour", "easy", 60, ["the fish market", "opening hour"]),
  title("Twofold", "Candle Parade", "typical", 60, ["the lantern street", "follow the band to the end"]),
  title("Twofold", "The Paper Regent", "hard", 60, ["the map room", "unfold every map"], {
    needs: ["both screens at once"],
  }),
  title("Gallery DX", "Paper Lighthouse", "easy", 59.94, ["the lamp room", "climb to the top"]),
  title("Gallery DX", "Marsh Rally 3", "typical", 59.94, ["the ford", "third stage, first camera"]),
  title("Gallery DX", "Winter Ferry", "typical", 59.94, ["the ice channel", "second crossing"]),
  title("Gallery DX", "Basalt Choir", "hard", 59.94, [
    "the bell hall",
    "stand under the great bell and turn once",
  ]),
  title("Meridian", "Quiet Machines", "typical", 60, ["the weaving floor", "ride the lift down"], {
    tied: false,
  }),
  title("Meridian", "Ninth Parallel", "hard", 60, ["the open market", "cross the square at noon"], {
    tied: false,
    memoryNeededGb: 12,
    notes: "Memory grows with every district visited.",
  }),
];

const free = { picture: 0, feel: 0, heat: 0, risk: 0 };
const setting = (
  key: string,
  label: string,
  more: Partial<Setting> & Pick<Setting, "type" | "default">,
): Setting => ({
  purpose: null,
  key,
  label,
  choices: [],
  min: null,
  max: null,
  step: null,
  fastest: null,
  relieves: [],
  costs: free,
  restart: false,
  linked: [],
  countsDouble: false,
  section: "engine",
  configKey: key,
  ...more,
});

const scale = (most: number, first: number) =>
  setting("scale", "Internal scale", {
    purpose: "scale",
    type: "number",
    default: first,
    min: 1,
    max: most,
    step: 1,
    fastest: 1,
    relieves: ["graphics"],
    costs: { ...free, picture: 2 },
    section: "picture",
  });
const backEnd = setting("back_end", "Back end", {
  purpose: "back end",
  type: "choice",
  choices: ["Vulkan", "OpenGL"],
  default: "OpenGL",
  fastest: "Vulkan",
  relieves: ["graphics", "processor"],
  costs: { ...free, risk: 1 },
  restart: true,
  section: "picture",
});
const shaderCache = setting("compile_ahead", "Compile effects ahead", {
  purpose: "shader cache",
  type: "switch",
  default: false,
  fastest: true,
  relieves: ["shaders"],
  costs: { ...free, feel: 1 },
  restart: true,
  section: "picture",
});
const soundQueue = setting("sound_queue", "Sound queue, frames", {
  purpose: "sound queue",
  type: "number",
  default: 64,
  min: 8,
  max: 256,
  step: 8,
  fastest: null,
  relieves: ["sound"],
  costs: { ...free, feel: 1 },
  section: "sound",
});
const asyncSound = setting("async_sound", "Mix sound on its own", {
  purpose: "sound sync",
  type: "switch",
  default: false,
  fastest: true,
  relieves: ["sound", "processor"],
  costs: { ...free, risk: 1 },
  section: "sound",
});
const skipCycles = setting("cycle_skip", "Skip cycles of the machine", {
  purpose: "cycle skip",
  type: "number",
  default: 0,
  min: 0,
  max: 3,
  step: 1,
  fastest: 3,
  relieves: ["processor"],
  costs: { ...free, feel: 2, risk: 1 },
  section: "machine",
});
const lightModel = setting("light_model", "Lighter machine model", {
  type: "switch",
  default: false,
  fastest: true,
  relieves: ["processor"],
  costs: { ...free, picture: 1, risk: 1 },
  restart: true,
  section: "machine",
});
const smoothing = setting("smoothing", "Smoothing", {
  type: "choice",
  choices: ["none", "bilinear", "tube screen"],
  default: "bilinear",
  fastest: "none",
  relieves: ["graphics"],
  costs: { ...free, picture: 1 },
  section: "picture",
});
const evenPacing = setting("even_pacing", "Hold frames to the display", {
  purpose: "display sync",
  type: "switch",
  default: false,
  fastest: null,
  relieves: ["sync"],
  costs: { ...free, feel: 1 },
  section: "sync",
});
const limiter = setting("rate_limit", "Rate limit", {
  purpose: "limiter",
  type: "number",
  default: 0,
  min: 0,
  max: 240,
  step: 1,
  fastest: null,
  relieves: ["sync"],
  countsDouble: true,
  section: "sync",
});

const holdRate = setting("hold_rate", "Hold to the title's rate", {
  purpose: "hold rate",
  type: "switch",
  default: true,
  fastest: null,
  relieves: ["sync"],
  costs: { ...free, feel: 1 },
  section: "sync",
});
const overdrive = setting("clock_percent", "Emulated clock, %", {
  purpose: "emulated clock",
  type: "number",
  default: 100,
  min: 50,
  max: 200,
  step: 10,
  fastest: 50,
  relieves: ["processor"],
  costs: { ...free, feel: 2, risk: 1 },
  section: "machine",
});

type DemoEngine = {
  name: string;
  systems: string[];
  notes: string;
  builds: [version: string, branch: "stable" | "experimental", date: string][];
  file: [name: string, format: ConfigFormat];
  catalogue: Setting[];
};

export const engines: DemoEngine[] = [
  {
    name: "Rookery",
    systems: ["Corvid 8"],
    notes: "",
    builds: [["1.9", "stable", "2026-01-14"]],
    file: ["rookery.cfg", "flat"],
    catalogue: [scale(6, 2), smoothing, soundQueue],
  },
  {
    name: "Harrow",
    systems: ["Cinder 32"],
    notes: "",
    builds: [
      ["2.4", "stable", "2026-03-02"],
      ["2.5", "experimental", "2026-10-20"],
    ],
    file: ["harrow.ini", "ini"],
    catalogue: [scale(8, 2), backEnd, lightModel, asyncSound, soundQueue, skipCycles],
  },
  {
    name: "Tender",
    systems: ["Satchel"],
    notes: "",
    builds: [["0.8", "stable", "2026-06-30"]],
    file: ["tender.xml", "xml"],
    catalogue: [scale(10, 2), backEnd, smoothing, holdRate],
  },
  {
    name: "Plait",
    systems: ["Twofold"],
    notes: "accurate first",
    builds: [["5.1", "stable", "2026-04-09"]],
    file: ["plait.toml", "toml"],
    catalogue: [scale(6, 2), backEnd, shaderCache, evenPacing, soundQueue],
  },
  {
    name: "Plait Swift",
    systems: ["Twofold"],
    notes: "fast first",
    builds: [["5.0", "stable", "2026-04-22"]],
    file: ["swift.toml", "toml"],
    catalogue: [scale(6, 2), backEnd, shaderCache, skipCycles],
  },
  {
    name: "Plait Weave",
    systems: ["Twofold"],
    notes: "a mix of the two",
    builds: [["0.3", "experimental", "2026-09-01"]],
    file: ["weave.yaml", "yaml"],
    catalogue: [scale(6, 2), backEnd, shaderCache],
  },
  {
    name: "Sallow",
    systems: ["Gallery DX"],
    notes: "",
    builds: [["7.2", "stable", "2026-07-18"]],
    file: ["sallow.toml", "toml"],
    catalogue: [scale(8, 2), backEnd, smoothing, asyncSound, skipCycles, overdrive, holdRate],
  },
  {
    name: "Longitude",
    systems: ["Meridian"],
    notes: "",
    builds: [["12", "stable", "2026-09-25"]],
    file: ["longitude.json", "json"],
    catalogue: [scale(3, 1), backEnd, shaderCache, limiter],
  },
];

/** What engines of the demo were found to be able to. */
export const abilities: { engine: string; ability: string; able: boolean; note: string }[] = [
  { engine: "Plait", ability: "outside controls", able: true, note: "" },
  { engine: "Plait", ability: "both screens at once", able: true, note: "side by side or stacked" },
  { engine: "Plait", ability: "save states", able: true, note: "" },
  { engine: "Plait Swift", ability: "outside controls", able: true, note: "" },
  { engine: "Plait Swift", ability: "both screens at once", able: true, note: "stacked only" },
  { engine: "Plait Swift", ability: "save states", able: false, note: "lost after every update" },
  { engine: "Plait Weave", ability: "outside controls", able: true, note: "the second stick does nothing" },
  { engine: "Harrow", ability: "reading from a card", able: true, note: "" },
];
