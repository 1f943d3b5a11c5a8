import { seeded, type Random } from "@/core/stats";
import { changeCosts, type ChangeCosts, type TimetablePlan } from "./plan";

/** Runs in their order, each as title · arms + arm. */
type Order = Int32Array;

interface Problem extends ChangeCosts {
  titles: number;
  arms: number;
  rounds: number;
}

/** Minutes between two runs: what is changed, or the rest that the device needs where that is longer. */
function between({ arms, arm, pause, title }: Problem, a: number, b: number): number {
  const [ta, tb] = [Math.floor(a / arms), Math.floor(b / arms)];
  const at = (a % arms) * arms + (b % arms);
  return Math.max((ta === tb ? 0 : title) + arm[at], pause[at]);
}

/** Minutes of change over a whole order. */
function changesIn(problem: Problem, order: Order): number {
  let sum = 0;
  for (let k = 1; k < order.length; k++) sum += between(problem, order[k - 1], order[k]);
  return sum;
}

/** Whether inside every title no arm runs a k+1st time before every arm has run k times. */
function isBalanced(
  { titles, arms }: Problem,
  order: Order,
  seen: Uint16Array,
  least: Uint16Array,
  at: Uint16Array,
): boolean {
  seen.fill(0, 0, titles * arms);
  least.fill(0, 0, titles);
  at.fill(0, 0, titles);
  for (const run of order) {
    const title = Math.floor(run / arms);
    if (seen[run] > least[title]) return false;
    seen[run]++;
    // How many of the title's arms have run once more than the least.
    if (++at[title] === arms) {
      at[title] = 0;
      least[title]++;
    }
  }
  return true;
}

/**
 * The cheapest way through some arms, beginning at the first of them that costs least from where one stands;
 * greedy, then by exchanges.
 */
function path(problem: Problem, group: number[]): number[] {
  const cost = (list: number[]) =>
    list.reduce((sum, b, k) => (k === 0 ? 0 : sum + between(problem, list[k - 1] ?? 0, b)), 0);
  let best = group;
  for (const start of group) {
    const left = new Set(group);
    left.delete(start);
    const made = [start];
    while (left.size > 0) {
      const from = made[made.length - 1] ?? 0;
      const next = [...left].reduce((a, b) => (between(problem, from, b) < between(problem, from, a) ? b : a));
      left.delete(next);
      made.push(next);
    }
    for (let better = true; better;) {
      better = false;
      for (let i = 0; i < made.length - 1; i++)
        for (let j = i + 1; j < made.length; j++) {
          const turned = [...made.slice(0, i), ...made.slice(i, j + 1).reverse(), ...made.slice(j + 1)];
          if (cost(turned) < cost(made) - 1e-9) {
            made.splice(0, made.length, ...turned);
            better = true;
          }
        }
    }
    if (cost(made) < cost(best) - 1e-9) best = made;
  }
  return best;
}

/**
 * An order of blocks: arms in groups; a group of arms is run by every title of a batch before the next group,
 * and back again in the next round, so that where a round ends the next begins. Titles go there and back too.
 */
function blocks(problem: Problem, groups: number[][], batch: number): Order {
  const { titles, arms, rounds } = problem;
  const order: number[] = [];
  let groupsNow = groups;
  for (let first = 0; first < titles; first += batch) {
    let members = Array.from({ length: Math.min(batch, titles - first) }, (_, k) => first + k);
    // Phases in their order; where two of the same group meet they are one, in which a title runs both rounds.
    const phases: { group: number[]; times: number }[] = [];
    for (let round = 0; round < rounds; round++) {
      groupsNow.forEach((group, at) => {
        const last = phases[phases.length - 1];
        if (last && at === 0 && last.group === group) last.times++;
        else phases.push({ group, times: 1 });
      });
      groupsNow = [...groupsNow].reverse();
    }
    for (const { group, times } of phases) {
      let way = group;
      for (const title of members)
        for (let time = 0; time < times; time++) {
          const last = order[order.length - 1];
          const ends = [way[0] ?? 0, way[way.length - 1] ?? 0];
          // Begin at the end that is nearer to what is set up now.
          if (last !== undefined) {
            const [there, back] = ends.map((arm) => between(problem, last, title * arms + arm));
            if ((back ?? 0) < (there ?? 0)) way = [...way].reverse();
          }
          for (const arm of way) order.push(title * arms + arm);
        }
      members = [...members].reverse();
    }
  }
  return Int32Array.from(order);
}

/**
 * Ways to put arms into groups worth trying: all together, each alone, and by what any cost or costs in common
 * would keep.
 */
function groupings({ arms, arm }: Problem): number[][][] {
  const all = Array.from({ length: arms }, (_, k) => k);
  const made = new Map<string, number[][]>();
  // Arms nearer than some bound are one group: single linkage at every distance that there is.
  for (const bound of [-1, ...new Set(arm)]) {
    const groups: number[][] = [];
    for (const a of all) {
      const near = groups.filter((group) => group.some((b) => arm[a * arms + b] <= bound));
      const joined = [a, ...near.flat()].sort((x, y) => x - y);
      for (const group of near) groups.splice(groups.indexOf(group), 1);
      groups.push(joined);
    }
    made.set(JSON.stringify(groups), groups);
  }
  return [...made.values()];
}

/** Groups in the order that costs least to walk, each walked at its own least cost. */
function arranged(problem: Problem, groups: number[][]): number[][] {
  const ways = groups.map((group) => path(problem, group));
  const heads = ways.map((way) => way[0] ?? 0);
  const order = path(problem, heads);
  return order.map((head) => ways[heads.indexOf(head)] ?? [head]);
}

/** Orders made by rule, the cheapest first. */
function built(problem: Problem): Order {
  const { titles } = problem;
  const batches = [...new Set([1, 2, 3, 4, 5, 8, 12, 20, 25, Math.ceil(titles / 2), titles])].filter(
    (batch) => batch <= titles,
  );
  let best: Order | null = null,
    least = Infinity;
  for (const groups of groupings(problem))
    for (const batch of batches) {
      const order = blocks(problem, arranged(problem, groups), batch);
      const cost = changesIn(problem, order);
      if (cost < least) [best, least] = [order, cost];
    }
  return best ?? new Int32Array();
}

/** Elementary steps of the search, in all. */
const effort = 5e7;
const movesPerRun = 800;

/** Takes a stretch of an order out and puts it back elsewhere, there or turned. */
function moved(order: Order, from: number, length: number, to: number, turned: boolean, into: Order): void {
  const stretch = order.slice(from, from + length);
  if (turned) stretch.reverse();
  if (to < from) {
    into.set(order);
    into.copyWithin(to + length, to, from);
    into.set(stretch, to);
  } else {
    into.set(order);
    into.copyWithin(from, from + length, to + length);
    into.set(stretch, to);
  }
}

/**
 * Betters an order by moving stretches of it, now and then for the worse so as not to stop at the first that
 * can't be bettered (simulated annealing, Kirkpatrick, Gelatt & Vecchi, 1983).
 */
function bettered(problem: Problem, begun: Order, random: Random, times: number): Order {
  const n = begun.length;
  if (n < 3) return begun;
  const { titles, arms } = problem;
  const seen = new Uint16Array(titles * arms),
    least = new Uint16Array(titles),
    at = new Uint16Array(titles);
  let order = Int32Array.from(begun),
    tried = new Int32Array(n),
    cost = changesIn(problem, order);
  let best = begun,
    lowest = cost;
  const moves = Math.floor(Math.min(movesPerRun * n, effort / n) * times);
  const typical = Math.max(...problem.arm, ...problem.pause, problem.title);
  const edge = (a: number, b: number) => (a < 0 || b >= n ? 0 : between(problem, order[a], order[b]));
  for (let move = 0; move < moves; move++) {
    const heat = typical * 0.25 * (1 - move / moves) ** 2;
    const length = 1 + Math.floor(random.uniform() ** 3 * Math.min(n - 1, 4 * arms));
    const from = Math.floor(random.uniform() * (n - length + 1));
    // Most moves go near: far ones seldom keep a title's rounds in order.
    const reach = random.uniform() < 0.7 ? 6 * arms : n;
    const to = Math.max(0, Math.min(n - length, from + Math.round((2 * random.uniform() - 1) * reach)));
    const turned = random.uniform() < 0.5;
    if (to === from && !turned) continue;
    // What the move changes is at three seams at most.
    const [first, last] = [order[from], order[from + length - 1]];
    const [head, tail] = turned ? [last, first] : [first, last];
    const gone = edge(from - 1, from) + edge(from + length - 1, from + length);
    let delta: number;
    if (to === from) {
      const [before, after] = [from > 0 ? order[from - 1] : -1, from + length < n ? order[from + length] : -1];
      delta =
        (before < 0 ? 0 : between(problem, before, head)) +
        (after < 0 ? 0 : between(problem, tail, after)) -
        gone;
    } else {
      const [left, right] = to < from ? [to - 1, to] : [to + length - 1, to + length];
      const closed =
        from > 0 && from + length < n ? between(problem, order[from - 1], order[from + length]) : 0;
      const opened = edge(left, right);
      const joined =
        (left >= 0 ? between(problem, order[left], head) : 0) +
        (right < n ? between(problem, tail, order[right]) : 0);
      delta = closed - gone - opened + joined;
    }
    if (delta > 1e-9 && (heat <= 0 || random.uniform() >= Math.exp(-delta / heat))) continue;
    moved(order, from, length, to, turned, tried);
    if (!isBalanced(problem, tried, seen, least, at)) continue;
    [order, tried] = [tried, order];
    cost += delta;
    if (cost < lowest - 1e-9) {
      lowest = cost;
      best = Int32Array.from(order);
    }
  }
  return best;
}

/** A run in its place. */
export interface PlannedRun {
  title: string;
  arm: string;
  round: number;
  /** Running minutes since the first run's beginning, at its own. */
  startMin: number;
  /** From 1; null where evenings have no length. */
  evening: number | null;
}

export interface Timetable {
  order: PlannedRun[];
  /** Loading, passes and changes in all. */
  minutes: number;
  /** Evenings it takes; null where they have no length. */
  evenings: number | null;
}

/** Why a plan has no timetable. */
export class PlanProblem extends Error {}

/**
 * An order of runs that costs little to set up, balanced inside every title, spread over evenings.
 * @param plan titles × arms × rounds, with what each change takes
 * @param longer how many times the usual search is done; 0 for the order made by rule alone
 * @throws PlanProblem when a run doesn't fit into an evening
 */
export function timetable(plan: TimetablePlan, longer = 1, seed = 1): Timetable {
  const { titles, arms, rounds, eveningMin } = plan;
  const problem = { ...changeCosts(plan), titles: titles.length, arms: arms.length, rounds };
  const begun = built(problem);
  const order = longer > 0 ? bettered(problem, begun, seeded(seed), longer) : begun;
  const counts = new Map<number, number>();
  const made: PlannedRun[] = [];
  let clock = 0,
    evening = 1,
    eveningBegan = 0;
  order.forEach((run, k) => {
    const title = titles[Math.floor(run / arms.length)],
      arm = arms[run % arms.length];
    const round = (counts.get(run) ?? 0) + 1;
    counts.set(run, round);
    const change = k === 0 ? 0 : between(problem, order[k - 1], run);
    const own = title.loadingMin + title.passMin;
    if (eveningMin !== undefined && change + own > eveningMin + 1e-9)
      throw new PlanProblem(
        `a run of “${title.name}” takes ${Number((change + own).toFixed(2))} min with its change, an evening has ${eveningMin}`,
      );
    if (eveningMin !== undefined && clock + change + own - eveningBegan > eveningMin + 1e-9) {
      evening++;
      eveningBegan = clock;
    }
    clock += change;
    made.push({
      title: title.name,
      arm: arm.name,
      round,
      startMin: Number(clock.toFixed(6)),
      evening: eveningMin === undefined ? null : evening,
    });
    clock += own;
  });
  return {
    order: made,
    minutes: Number(clock.toFixed(6)),
    evenings: eveningMin === undefined ? null : evening,
  };
}
