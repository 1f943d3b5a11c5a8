import {
  conditionLevers,
  leversFor,
  nextStep,
  openingFor,
  outlook,
  suggest,
  sweptIn,
  type Lever,
  type NextStep,
  type Opening,
  type SuggestInput,
  type Suggestion,
  type Tried,
} from "@/core/advise";
import type { Diagnosis } from "@/core/diagnose";
import { displayIn, firstConditions, hasSize } from "@/core/kit";
import type { RigRow, SystemRow, TitleDetail } from "@/core/records";
import { planScales } from "@/core/resolution";
import { said } from "./codes";
import { diagnoseRun } from "./diagnosing";
import type { Story, StoryRun } from "./story";
import { isUnder } from "./holds";
import type { Holding } from "./shape";
import { confirmationOf, speedOf } from "./telling";

/** A scene's length where nobody wrote it down, s. */
const usualSceneSeconds = 60;

/** Minutes of one pass of a title's worst scene. */
export function sceneMinutes(scenes: { seconds: number | null; worst: boolean }[]): number {
  const scene = scenes.find(({ worst }) => worst) ?? scenes[0];
  return (scene?.seconds ?? usualSceneSeconds) / 60;
}

/**
 * Least scale whose picture has as many lines as a display shows of it; null where the picture or the display
 * isn't known.
 */
export function usefulScaleOf(
  { spec }: Pick<RigRow, "spec">,
  system: Pick<SystemRow, "screens"> | undefined,
  display: string | null | undefined,
): number | null {
  const shown = displayIn(spec, display);
  if (!system || system.screens.length === 0 || !hasSize(shown)) return null;
  return planScales(system.screens, shown, "contain", "stacked").usefulScale;
}

/** Minutes of a job's next run: those of its newest look where it is read off a screen, else of the scene. */
export function passMinutes(
  scenes: Parameters<typeof sceneMinutes>[0],
  runs: Pick<StoryRun, "source" | "summary">[],
): number {
  const last = runs.at(-1);
  return last?.source === "tally" ? last.summary.durationMs / 60_000 : sceneMinutes(scenes);
}

/** What a job is played on, and what the rig's trials of this engine taught. */
export interface JobSetting {
  rig: RigRow;
  system: SystemRow | undefined;
  title: Pick<TitleDetail, "scenes"> & Partial<Pick<TitleDetail, "memoryNeededGb">>;
  tried: Omit<Tried, "relieves">[];
  holds: Holding;
}

export interface JobReading {
  diagnosis: { runId: string; diagnosis: Diagnosis } | null;
  suggestions: Suggestion[];
  opening: Opening | null;
  next: NextStep;
}

/**
 * What a job's runs say of what to do: what holds it back, what to try, how to begin, the one next step.
 * @param telling the run that says how things stand, with its scenes
 */
export function readJob(story: Story, setting: JobSetting, telling: StoryRun | null): JobReading {
  const { job, runs, trials, decided, catalogue } = story;
  const { rig, system, holds } = setting;
  const diagnosis =
    telling &&
    diagnoseRun(telling, story, rig, system, { memoryNeededGb: setting.title.memoryNeededGb ?? null });
  const baseline = runs.find(({ trialId, crashed, cold }) => trialId === null && !crashed && !cold) ?? telling;
  const opening =
    baseline && baseline.verdict.grade !== "steady"
      ? openingFor(job.strategy, speedOf(baseline), trials.length)
      : null;
  const asked = job.closedAt || !telling ? null : suggestInput(story, setting, telling, diagnosis);
  const suggestions = asked ? suggest(asked) : [];
  const end = asked && telling?.verdict.grade ? outlook(asked, job.tied) : null;
  const openTrial = trials.findLast(({ decidedAt }) => !decidedAt) ?? null;
  const [best] = suggestions;
  const next = nextStep({
    runs: runs.map((run) => ({
      held: isUnder(holds, run, catalogue),
      grade: run.verdict.grade,
      crashed: run.crashed,
      coldCache: run.cold,
      inTrial: run.trialId !== null,
    })),
    decided: decided.length,
    closed: job.closedAt !== null,
    openTrial: openTrial && {
      name: openTrial.name,
      left: openTrial.left.map((arm) => openTrial.arms[arm]?.name ?? ""),
    },
    suggestion:
      opening?.sentence ?? end?.sentence ?? (best ? said("next.try", { suggestion: best.sentence }) : null),
    confirmed: confirmationOf(story, holds) !== null,
  });
  return {
    diagnosis: telling && diagnosis ? { runId: telling.id, diagnosis } : null,
    suggestions,
    opening,
    next,
  };
}

function suggestInput(
  { job, runs, catalogue, standing, trials }: Story,
  { rig, system, title, tried, holds }: JobSetting,
  run: StoryRun,
  diagnosis: Diagnosis | null,
): SuggestInput {
  const conditions = { ...firstConditions(rig.spec), ...run.conditions, ...holds.conditions };
  // A change that an open trial makes is being tried already.
  const open = trials.filter(({ decidedAt }) => !decidedAt).flatMap(({ arms }) => arms.slice(1));
  const isOpen = ({ key, to, kind }: Lever) =>
    open.some(({ settings, conditions: under }) =>
      kind === "setting" ? settings[key] === to : to === under[conditionLevers[kind]],
    );
  const levers = leversFor({
    catalogue,
    settings: standing.settings,
    rules: job.rules,
    spec: rig.spec,
    conditions,
    usefulScale: usefulScaleOf(rig, system, conditions.display),
  }).filter((lever) => !isOpen(lever));
  const swept = trials.filter(({ decidedAt }) => decidedAt).flatMap(sweptIn);
  const relieves = (key: string) =>
    catalogue.find((setting) => setting.key === key)?.relieves ?? ["processor" as const, "graphics" as const];
  return {
    levers,
    diagnosis,
    aim: job.aim,
    speedPercent: speedOf(run),
    steady: run.verdict.grade === "steady",
    history: [...tried, ...swept].map((each) => ({ ...each, relieves: relieves(each.key) })),
    sceneMinutes: passMinutes(title.scenes, runs),
    pixelShare: diagnosis?.pixelShare ?? null,
  };
}
