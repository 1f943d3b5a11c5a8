// How often the comparison is right where the truth is known, on seeded made-up afternoons; the seeds of the
// score were not tuned on.
import { type NoiseFloor } from "@/core/compare";
import { honesty, settling, type HeldFigure, type Truth } from "@/testing/honesty";

const repeats = Number(process.env.REPEATS ?? 300);
const seed = Number(process.env.SEED ?? 700_000);
const known = (sd: number): NoiseFloor => ({ sd, freedom: 20 });
const usual: Truth = {
  repeats,
  shape: "autocorrelated",
  ratio: 1,
  order: "ABBAABBA",
  told: "nothing",
  spread: 0.04,
  drift: 0,
  levelsOff: Infinity,
  noise: null,
  seconds: [30, 30],
  seed,
};
const settlesIn = 2;
type Row = [name: string, truth: Partial<Truth>];
const called: Row[] = [
  ["rig spread 4 %, no floor known: 1 run a side", { order: "AB" }],
  ["2 runs a side", { order: "ABBA" }],
  ["4 runs a side", {}],
  ["rig spread 6 %: 1 run a side", { order: "AB", spread: 0.06 }],
  ["6 %: 2 runs a side", { order: "ABBA", spread: 0.06 }],
  ["6 %: 4 runs a side", { spread: 0.06 }],
  ["1 %: 4 runs a side", { spread: 0.01 }],
  ["4 %, by rounds, 4 rounds, order not told", { told: "rounds" }],
  ["4 %, order told", { told: "order" }],
  ["three equal arms, 4 %, 3 runs: any pair", { order: "ABCCBAABC" }],
  ["the same, order told", { order: "ABCCBAABC", told: "order" }],
  [
    "15 % steady drift, A always first, order told",
    { order: "ABABABAB", told: "order", drift: 0.15, spread: 0.02 },
  ],
  ["the same, by rounds, order not told", { order: "ABABABAB", told: "rounds", drift: 0.15, spread: 0.02 }],
  ["15 % steady drift, in turn, order told", { told: "order", drift: 0.15, spread: 0.02 }],
  [
    "15 % that levels off, ABBA, order told",
    { told: "order", drift: 0.15, levelsOff: settlesIn, spread: 0.02 },
  ],
  [
    "15 % that levels off, ABAB, order told",
    { order: "ABABABAB", told: "order", drift: 0.15, levelsOff: settlesIn, spread: 0.02 },
  ],
  ["the same, slower", { order: "ABABABAB", told: "order", drift: 0.15, levelsOff: 4, spread: 0.02 }],
  ["the same, at once", { order: "ABABABAB", told: "order", drift: 0.15, levelsOff: 1, spread: 0.01 }],
  [
    "15 % that levels off, ABBA, by rounds, order not told",
    { told: "rounds", drift: 0.15, levelsOff: settlesIn, spread: 0.02 },
  ],
  [
    "15 % that levels off, ABAB, by rounds, order not told",
    { order: "ABABABAB", told: "rounds", drift: 0.15, levelsOff: settlesIn, spread: 0.02 },
  ],
  ["AAAABBBB with 15 % drift, order told", { order: "AAAABBBB", told: "order", drift: 0.15, spread: 0.02 }],
];
const percent = (share: number | null) => (share === null ? "none given" : `${(100 * share).toFixed(1)} %`);
const only = process.env.ONLY;
if (!only || only === "called") {
  console.log("| equal arms | called different |\n|---|---|");
  for (const [name, truth] of called)
    console.log(`| ${name} | ${percent(honesty({ ...usual, ...truth }).called)} |`);
}

const covered: [string, Partial<Truth>, HeldFigure[]][] = [
  [
    "autocorrelated, 1 run a side",
    { order: "AB", spread: 0.02 },
    ["averageFps", "worstTimeLow", "fullSpeedTime", "hitchesPerMinute"],
  ],
  [
    "2 runs a side",
    { order: "ABBA", spread: 0.02 },
    ["averageFps", "worstTimeLow", "fullSpeedTime", "hitchesPerMinute"],
  ],
  ["4 runs a side", { spread: 0.02 }, ["averageFps", "worstTimeLow", "fullSpeedTime", "hitchesPerMinute"]],
  ...(["AB", "ABBA", "ABBAABBA"] as const).flatMap((order): [string, Partial<Truth>, HeldFigure[]][] => [
    [
      `display-paced, 5 % more work, ${order.length / 2} a side`,
      { shape: "display-paced", ratio: 1 / 1.05, order, spread: 0.01 },
      ["averageFps", "fullSpeedTime"],
    ],
    [
      `stalls under a cap, ${order.length / 2} a side`,
      { shape: "stalls under a cap", order, spread: 0 },
      ["averageFps", "worstTimeLow", "fullSpeedTime", "hitchesPerMinute"],
    ],
    [
      `heavy tails, ${order.length / 2} a side`,
      { shape: "heavy tails", order, spread: 0.02 },
      ["averageFps", "worstTimeLow", "hitchesPerMinute"],
    ],
    [
      `counter, phi 0.95, ${order.length / 2} a side`,
      { shape: "counter", order, spread: 0, seconds: [60, 60] },
      ["averageFps", "fullSpeedTime"],
    ],
    [
      `frames, phi 0.99, ${order.length / 2} a side`,
      { shape: "slow waves", order, spread: 0 },
      ["averageFps", "worstTimeLow"],
    ],
  ]),
  [
    "heavy tails, 8 runs against 2",
    { shape: "heavy tails", order: "AAAABBAAAA", spread: 0.02 },
    ["averageFps", "worstTimeLow"],
  ],
  [
    "heavy tails, 20 s against 80 s, 3 a side",
    { shape: "heavy tails", order: "ABBAAB", seconds: [20, 80], spread: 0.02 },
    ["averageFps", "worstTimeLow"],
  ],
  [
    "counter, phi 0.95, a floor of 2 % known, 1 a side",
    { shape: "counter", order: "AB", spread: 0, noise: known(0.02), seconds: [60, 60] },
    ["averageFps"],
  ],
  [
    "frames, phi 0.99, a floor of 2 % known, 2 a side",
    { shape: "slow waves", order: "ABBA", spread: 0.01, noise: known(0.02) },
    ["averageFps"],
  ],
];
if (!only || only === "covered") {
  console.log(
    "\n| interval holds the truth | average | 1 % low | full-speed time | hitches |\n|---|---|---|---|---|",
  );
  for (const [name, truth, figures] of covered) {
    const made = honesty({ ...usual, ...truth });
    const cell = (figure: HeldFigure) => (figures.includes(figure) ? percent(made.covered[figure]) : "");
    console.log(
      `| ${name} | ${cell("averageFps")} | ${cell("worstTimeLow")} | ${cell("fullSpeedTime")} | ${cell("hitchesPerMinute")} |`,
    );
  }
}

const gains: Row[] = [
  ["2 % spread, floor known, 4 runs a side", { spread: 0.02, noise: known(0.02) }],
  ["the same, order told", { spread: 0.02, noise: known(0.02), told: "order" }],
  ["2 % spread, no floor, 4 runs a side", { spread: 0.02 }],
  [
    "2 % spread, floor known, 15 % drift, order told",
    { spread: 0.02, noise: known(0.02), told: "order", drift: 0.15 },
  ],
];
if (!only || only === "found") {
  console.log("\n| a true 5 % gain | called better | interval holds it |\n|---|---|---|");
  for (const [name, truth] of gains) {
    const made = honesty({ ...usual, ...truth, ratio: 1.05 });
    console.log(`| ${name} | ${percent(made.better)} | ${percent(made.covered.averageFps)} |`);
  }
}
if (!only || only === "settled") {
  console.log(
    "\n| undecided, and a number of further runs said | cases | chance said | settled by them |\n|---|---|---|---|",
  );
  for (const [name, truth] of [
    ["2 % spread, 3 runs a side", { spread: 0.02, order: "ABABAB" }],
    ["2 % spread, floor known, 2 runs a side", { spread: 0.02, order: "ABAB", noise: known(0.02) }],
    ["4 % spread, 4 runs a side", { order: "ABABABAB" }],
  ] satisfies Row[]) {
    const made = settling({ ...usual, ...truth, seconds: [6, 6] });
    for (const [what, { cases, said, settled }] of Object.entries(made))
      if (cases > 0)
        console.log(`| ${name}, ${what} | ${cases} | ${percent(said / cases)} | ${percent(settled / cases)} |`);
  }
}
