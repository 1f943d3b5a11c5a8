// How near the planner's order comes to a long search's, and how long it takes: fifty titles, three arms, three
// rounds, by what is dear to change.
import { timetable, type TimetablePlan } from "../../src/core/timetable/index";

const arms = [
  { name: "first", engine: "one", driver: "shipped" },
  { name: "second", engine: "two", driver: "shipped" },
  { name: "third", engine: "one", driver: "newest" },
];
const costs: Record<string, TimetablePlan["costs"]> = {
  "all alike": { title: 1, engine: 1, driver: 1 },
  "title dear": { title: 6, engine: 1, driver: 2 },
  "engine dear": { title: 1, engine: 5, driver: 2 },
  "driver dear": { title: 1, engine: 2, driver: 12 },
};
/** Times the usual search. */
const long = 40;

for (const [name, given] of Object.entries(costs)) {
  const titles = Array.from({ length: 50 }, (_, k) => ({ name: `title ${k}`, loadingMin: 1, passMin: 3 }));
  const plan = { titles, arms, rounds: 3, costs: given };
  const fixed = 50 * 3 * 3 * 4;
  const begun = performance.now();
  const usual = timetable(plan).minutes;
  const seconds = (performance.now() - begun) / 1000;
  const best = Math.min(usual, ...[2, 3].map((seed) => timetable(plan, long, seed).minutes));
  console.log(
    `${name.padEnd(12)} ${usual.toFixed(0)} min, of them ${(usual - fixed).toFixed(0)} of change; ${(usual / best).toFixed(3)} of a search ${long} times as long (changes alone ${((usual - fixed) / (best - fixed)).toFixed(3)}); made in ${seconds.toFixed(2)} s`,
  );
}
