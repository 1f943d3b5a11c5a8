import { changes, VersionChange } from "./changes";
import type {
  CellState,
  CellAnswer,
  TitleOutcome,
  TitleAnswer,
  Share,
  ArmAnswer,
  CampaignAnswer,
} from "./shape";
import { outweighs } from "@/core/kit";
import { wilson } from "@/core/stats";
import { usualLight } from "@/core/trial";
import { grades, type Grade } from "@/core/verdict";
import { enoughChance } from "@/core/compare";
import { standingPairs } from "./correct";
import type { StandingPair } from "./shape";
import type { CampaignFacts, CellFacts, TitleFacts } from "./shape";
import { forAll, roundStates, roundsDone } from "./slots";

/** Fewest whole runs of an arm before a title is given up, or called for the only arm that runs. */
const leastRounds = 2;

const mean = (values: number[]) =>
  values.length === 0 ? null : values.reduce((sum, value) => sum + value, 0) / values.length;

function cellAnswer(cell: CellFacts): CellAnswer {
  const whole = cell.runs.filter(({ crashed }) => !crashed);
  const crashes =
    cell.runs.length - whole.length + cell.notes.filter(({ answer }) => answer === "crashed").length;
  const said = forAll(cell);
  const state: CellState =
    whole.length > 0
      ? crashes > 0 || cell.runs.some(({ faults }) => faults.some(outweighs))
        ? "faulted"
        : "sound"
      : said?.answer === "not for this engine" || (cell.lacks.length > 0 && !said)
        ? "not for it"
        : said || crashes > 0
          ? "dark"
          : "untested";
  const usual = usualLight(cell.runs);
  return {
    state,
    grade: state === "dark" ? "dark" : usual.grade,
    between: state === "dark" ? null : (usual.between ?? null),
    averageFps: mean(whole.map(({ averageFps }) => averageFps)),
    runs: cell.runs.length,
    places: cell.runs.findLast(({ places }) => places)?.places ?? null,
    crashes,
    hours: cell.runs.reduce((sum, { durationMs }) => sum + durationMs, 0) / 3_600_000,
  };
}

/** Whether x beats y at this title, after all corrections. */
const beats = (pairs: StandingPair[], x: number, y: number) =>
  pairs.some(
    ({ a, b, decision }) =>
      (a === y && b === x && decision === "better") || (a === x && b === y && decision === "worse"),
  );

/**
 * Whether arms are to be told apart, and any two are on one rig: only then is a title settled before its runs
 * are done.
 */
const asksForPairs = ({ arms, question }: Pick<CampaignFacts, "arms" | "question">) =>
  (question === "which is best" || question === "what changed") &&
  new Set(arms.map(({ rigId }) => rigId)).size < arms.length;

function changeOf(cells: CellAnswer[], pairs: StandingPair[]): VersionChange {
  const [before, after] = cells.map(({ state }) => state);
  const broken = (state: CellState | undefined) =>
    state === "dark" || state === "faulted" || state === "not for it";
  if (broken(before) && after === "sound") return "fixed";
  if (before === "sound" && broken(after)) return "newly broken";
  if (before === "untested" || after === "untested") return "open";
  if (before === "dark" && after === "dark") return "unchanged";
  const [pair] = pairs;
  if (!pair || pair.decision === "undecided") return "open";
  return pair.decision === "no difference" ? "unchanged" : pair.decision;
}

function titleAnswer(title: TitleFacts, pairs: StandingPair[], facts: CampaignFacts): TitleAnswer {
  const cells = title.cells.map(cellAnswer);
  const arms = facts.arms.map((_, arm) => arm);
  const inState = (state: CellState) => arms.filter((arm) => cells[arm]?.state === state);
  const rate = (arm: number) => cells[arm]?.averageFps ?? 0;
  const sound = inState("sound"),
    faulted = inState("faulted"),
    untested = inState("untested");
  const best = sound
    .filter((arm) => !sound.some((other) => beats(pairs, other, arm)))
    .sort((x, y) => rate(y) - rate(x));
  const among = pairs.filter(({ a, b }) => best.includes(a) && best.includes(b));
  const isOpen =
    untested.length > 0 || title.pairs === null || among.some(({ decision }) => decision === "undecided");
  const compared = (x: number, y: number) =>
    pairs.some(({ a, b }) => (a === x && b === y) || (a === y && b === x));
  // Arms on different rigs aren't compared by their rates: each is the best of its own.
  const oneRig = best.every((x, at) => best.slice(at + 1).every((y) => compared(x, y)));
  const outcome: TitleOutcome =
    sound.length + faulted.length === 0
      ? untested.length > 0
        ? "untested"
        : "dark"
      : isOpen
        ? "open"
        : sound.length === 0
          ? "faults"
          : // One arm alone beats nobody.
            best.length === 1 && arms.length > 1
            ? "winner"
            : best.length > 1 && oneRig
              ? "tie"
              : "open";
  const rounds = facts.rounds + title.extra;
  const undecided = among.filter(({ decision }) => decision === "undecided");
  // One run a side tells too little to give up on.
  const isHopeless = undecided.every(
    ({ a, b, chanceSettled = 0 }) =>
      chanceSettled < enoughChance && roundsDone(title.cells, [a, b]) >= leastRounds,
  );
  const begun = arms.every((arm) => {
    const cell = title.cells[arm];
    return cell !== undefined && roundStates(cell, rounds)[0] !== "open";
  });
  const running = arms.filter((arm) => ["sound", "faulted"].includes(cells[arm]?.state ?? ""));
  const alone = running.length < 2;
  return {
    titleId: title.titleId,
    cells,
    pairs,
    outcome,
    best,
    fasterButFaulted: faulted.filter((arm) => best.some((other) => beats(pairs, arm, other))),
    firstSteady: arms.find((arm) => cells[arm]?.grade === "steady" && cells[arm]?.state === "sound") ?? null,
    change: facts.question === "what changed" ? changeOf(cells, pairs) : null,
    settled:
      begun &&
      title.pairs !== null &&
      asksForPairs(facts) &&
      (alone
        ? running.every((arm) => roundsDone(title.cells, [arm]) >= leastRounds)
        : pairs.length > 0 && isHopeless),
  };
}

function share(hits: number, of: number): Share {
  return { hits, of, ...(of > 0 ? wilson(hits, of) : { low: 0, high: 1 }) };
}

/**
 * What a campaign's runs come to so far.
 *
 * Inside a title arms on one rig are compared in pairs; differences are corrected over titles. An arm with
 * crashes or faults that outweigh speed wins nothing while a sound one is there; one that won't start is
 * *dark*.
 */
export function answerCampaign(facts: CampaignFacts): CampaignAnswer {
  const standing = standingPairs(facts);
  const titles = facts.titles.map((title, at) => titleAnswer(title, standing[at] ?? [], facts));
  const count = (of: (title: TitleAnswer) => boolean) => titles.filter(of).length;
  const arms = facts.arms.map((_, arm): ArmAnswer => {
    const state = (title: TitleAnswer) => title.cells[arm]?.state;
    const judged = titles.flatMap((title) => title.cells[arm]?.grade ?? []);
    return {
      wins: count(({ outcome, best }) => outcome === "winner" && best[0] === arm),
      ties: count(({ outcome, best }) => outcome === "tie" && best.includes(arm)),
      beaten: count((title) => state(title) === "sound" && !title.best.includes(arm) && title.best.length > 0),
      faulted: count((title) => state(title) === "faulted"),
      notForIt: count((title) => state(title) === "not for it"),
      untested: count((title) => state(title) === "untested"),
      shares: Object.fromEntries(
        grades.map((grade) => [grade, share(judged.filter((each) => each === grade).length, judged.length)]),
      ) as Record<Grade, Share>,
    };
  });
  const tally = <Name extends string>(names: readonly Name[], of: (title: TitleAnswer) => Name | null) =>
    Object.fromEntries(names.map((name) => [name, count((title) => of(title) === name)])) as Record<
      Name,
      number
    >;
  return {
    titles,
    arms,
    outcomes: tally(["untested", "open", "winner", "tie", "faults", "dark"], ({ outcome }) => outcome),
    changes: facts.question === "what changed" ? tally(changes, ({ change }) => change) : null,
  };
}
