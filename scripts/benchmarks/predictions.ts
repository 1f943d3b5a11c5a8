// How often predictions hold, and chances come true, over made-up titles and rigs of known work; also where a cap
// hides the quick titles, and with little measured.
//   npm run bench -- predictions        WORLDS (10) and SEED (500) may be set
import { chanceOf, fitWorld, predict, type Observation } from "@/core/predict";
import { frameTimeOf } from "@/core/predict/model";
import { medianOf, seeded, standardDeviation, tQuantile } from "@/core/stats";

const worlds = Number(process.env.WORLDS ?? 10);
const seed = Number(process.env.SEED ?? 500);
/** Left-out pairs that are asked of each world. */
const mostAsked = 60;

interface World {
  titles?: number;
  rigs?: number;
  /** Share of pairs that are measured. */
  share?: number;
  /** Rate that no run goes over, fps. */
  cap?: number;
  /** Usual time of a title's own processor work, ms. */
  usualMs?: number;
}

function madeUp(at: number, { titles = 24, rigs = 6, share = 0.5, cap = 60, usualMs = 9 }: World) {
  const random = seeded(at).split(3);
  const about = (ms: number, spread: number) => Math.log(ms) + spread * random.normal();
  const works = Array.from({ length: titles }, () => ({
    c: about(usualMs, 0.5),
    a: about(usualMs * 0.66, 0.5),
    b: about(usualMs / 3, 0.5),
  }));
  const paces = Array.from({ length: rigs }, () => ({ u: about(1, 0.4), v: about(1, 0.5) }));
  const seen: Observation[] = [],
    left: Observation[] = [];
  works.forEach((work, t) =>
    paces.forEach((pace, r) => {
      const into = random.uniform() > share ? left : seen;
      for (const scale of [1, 2, 3].slice(0, 1 + random.whole(3))) {
        const pixels = 0.17 * scale ** 2;
        const ms = Math.exp(frameTimeOf(work, pace, pixels).value + 0.05 * random.normal());
        const held = into === seen && ms < 1000 / cap;
        into.push({ title: `t${t}`, rig: `r${r}`, pixels, frameMs: held ? 1000 / cap : ms, held });
      }
    }),
  );
  return { seen, left: left.slice(0, mostAsked) };
}

/** Width of the 90 % interval that the mean of a rig's free runs gives by itself, as a factor. */
function rigWidth(seen: Observation[], rig: string): number {
  const logs = seen.filter((one) => one.rig === rig && !one.held).map(({ frameMs }) => Math.log(frameMs));
  const n = logs.length;
  return n < 3 ? NaN : Math.exp(2 * tQuantile(0.95, n - 1) * standardDeviation(logs) * Math.sqrt(1 + 1 / n));
}

console.log(`${worlds} worlds a row, seed ${seed}`);
console.log(
  "| measured | 90 % interval holds | width, median | the rig's own mean | chance of 60 said → came |\n|---|---|---|---|---|",
);
for (const [name, world] of [
  ["half of the pairs, no cap", { cap: Infinity }],
  ["half, a cap at 60", {}],
  ["half, quick titles, a cap at 60", { usualMs: 6 }],
  ["half, very quick titles, a cap at 60", { usualMs: 4 }],
  ["a quarter, no cap", { share: 0.25, cap: Infinity }],
  ["a quarter, a cap at 60", { share: 0.25 }],
  ["two rigs, no cap", { rigs: 2, share: 0.7, cap: Infinity }],
  ["two rigs and eight titles, no cap", { rigs: 2, titles: 8, share: 0.6, cap: Infinity }],
] satisfies [string, World][]) {
  const widths: number[] = [],
    usual: number[] = [];
  let held = 0;
  const bins = Array.from({ length: 5 }, () => ({ count: 0, said: 0, came: 0 }));
  for (let k = 0; k < worlds; k++) {
    const { seen, left } = madeUp(seed + k, world);
    const fit = fitWorld(seen);
    for (const { title, rig, pixels, frameMs } of left) {
      const made = predict(fit, title, rig, pixels, k + 1);
      if (frameMs >= made.low && frameMs <= made.high) held++;
      widths.push(made.high / made.low);
      const own = rigWidth(seen, rig);
      if (!Number.isNaN(own)) usual.push(own);
      const chance = chanceOf(made, 60);
      const bin = bins[Math.min(4, Math.floor(5 * chance))];
      if (!bin) continue;
      bin.count++;
      bin.said += chance;
      if (frameMs <= (1000 / 60) * 1.01) bin.came++;
    }
  }
  const percent = (share: number) => (100 * share).toFixed(0);
  const chances = bins
    .filter(({ count }) => count >= 20)
    .map(({ count, said, came }) => `${percent(said / count)} → ${percent(came / count)}`);
  const factor = (list: number[]) =>
    list.length > 0 ? `×${medianOf(Float64Array.from(list)).toFixed(1)}` : "–";
  console.log(
    `| ${name} | ${((100 * held) / widths.length).toFixed(1)} % | ${factor(widths)} | ${factor(usual)} | ${chances.join(", ")} |`,
  );
}
