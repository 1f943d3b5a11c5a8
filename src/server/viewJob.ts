import { leversFor, nextStep, openingFor, suggest, type Suggestion, type Tried } from "@/core/advise";
import { rigNoise } from "@/core/compare";
import type { Diagnosis } from "@/core/diagnose";
import {
  changesBetween,
  conditionWarnings,
  defaultsOf,
  displayIn,
  firstConditions,
  sameSettings,
} from "@/core/kit";
import { tallyFigures } from "@/core/metrics";
import { overrides } from "@/core/profile";
import { planScales } from "@/core/resolution";
import type { JobRow, JobView, RigRow, SystemRow, ThreadRun } from "@/core/records";
import {
  findJob,
  findRig,
  findRun,
  findTitle,
  findTrace,
  listFaults,
  listSystems,
  repeatsOnRig,
  triedOnRig,
} from "@/data";
import { diagnoseRun } from "./diagnosis";
import { storyOf, type Story, type StoryRun } from "./jobStory";
import { notFound } from "./problem";

/** A run as a screen gets it: without what only the core reads. */
export async function threadRun(run: StoryRun, before: StoryRun | null): Promise<ThreadRun> {
  const {
    rules,
    methodVersion: _version,
    buildId: _build,
    rigRevisionId: _revision,
    faults: _faults,
    summary,
    ...rest
  } = run;
  const { segments: _segments, ...figures } = summary;
  return {
    ...rest,
    summary: figures,
    changes: before ? changesBetween(before.settings, run.settings) : [],
    warnings: conditionWarnings(run.conditions, rules.requires),
    tally: await tallyOf(run),
  };
}

export async function viewJob(id: string): Promise<JobView> {
  const job = await findJob(id);
  if (!job) throw notFound("job");
  const [story, rig, faults, systems, title, history, repeats] = await Promise.all([
    storyOf(job),
    findRig(job.rigId),
    listFaults(id),
    listSystems(),
    findTitle(job.titleId),
    triedOnRig(job.rigId),
    repeatsOnRig(job.rigId),
  ]);
  if (!rig || !title) throw notFound("rig");
  const { runs, trials, standing, decided } = story;
  const { noise, measured } = rigNoise(repeats);
  const threads: ThreadRun[] = [];
  for (const [index, run] of runs.entries()) threads.push(await threadRun(run, runs[index - 1] ?? null));

  const system = systems.find((each) => each.id === title.systemId);
  const telling = latestTelling(story);
  const diagnosis = telling && diagnoseRun(await withSegments(telling), story, rig, system);
  const baseline = runs.find(({ trialId, crashed, cold }) => trialId === null && !crashed && !cold) ?? telling;
  const opening =
    baseline && baseline.verdict.grade !== "steady"
      ? openingFor(job.strategy, speedOf(baseline), trials.length)
      : null;
  const suggestions =
    job.closedAt || !telling
      ? []
      : suggestionsFor(
          story,
          telling,
          diagnosis,
          rig,
          system,
          history.filter(({ engineId }) => engineId === job.engineId),
          sceneMinutes(title.scenes),
        );
  const openTrial = [...trials].reverse().find((trial) => !trial.decidedAt) ?? null;
  const lastDecision = trials.reduce(
    (latest, { decidedAt }) => Math.max(latest, decidedAt ? new Date(decidedAt).getTime() : 0),
    0,
  );
  const next = nextStep({
    runs: runs.map((run) => ({
      settings: run.settings,
      grade: run.verdict.grade,
      crashed: run.crashed,
      coldCache: run.cold,
      inTrial: run.trialId !== null,
    })),
    inForce: standing.settings,
    decided: decided.length,
    closed: job.closedAt !== null,
    openTrial: openTrial && {
      name: openTrial.name,
      left: openTrial.left.map((arm) => openTrial.arms[arm].name),
    },
    suggestion: opening?.sentence ?? (suggestions[0] ? `Try ${lowerFirst(suggestions[0].sentence)}` : null),
    confirmed: confirmationOf(story, lastDecision) !== null,
  });
  return {
    job,
    runs: threads,
    trials,
    faults,
    standing: { settings: standing.settings, conditions: standing.conditions },
    overrides: overrides(defaultsOf(story.catalogue), standing, decided),
    diagnosis: telling && diagnosis ? { runId: telling.id, diagnosis } : null,
    suggestions,
    opening,
    next,
    noise,
    noiseMeasured: measured,
    catalogue: story.catalogue,
    spec: rig.spec,
    scenes: title.scenes.map(({ name }) => name),
  };
}

const lowerFirst = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
export const speedOf = ({ summary }: Pick<StoryRun, "summary">) =>
  summary.reportedSpeedPercent ?? (100 * summary.averageFps) / summary.targetFps;
const usualSceneSeconds = 60;
export const sceneMinutes = (scenes: { seconds: number | null; worst: boolean }[]) =>
  ((scenes.find(({ worst }) => worst) ?? scenes[0])?.seconds ?? usualSceneSeconds) / 60;

/** The run that says how things stand: the newest whole, warm one with the settings in force, else the newest of any. */
function latestTelling({ runs, standing }: Story): StoryRun | null {
  const whole = runs.filter(({ crashed, cold }) => !crashed && !cold);
  return (
    whole.filter((run) => sameSettings(run.settings, standing.settings)).at(-1) ??
    whole.at(-1) ??
    runs.at(-1) ??
    null
  );
}

/** The run that confirms a job: outside any trial, with the settings in force, after the last decision. */
export function confirmationOf({ runs, standing }: Story, lastDecision: number): StoryRun | null {
  return (
    runs
      .filter(
        (run) =>
          run.trialId === null &&
          !run.crashed &&
          sameSettings(run.settings, standing.settings) &&
          new Date(run.madeAt).getTime() > lastDecision,
      )
      .at(-1) ?? null
  );
}

function suggestionsFor(
  { job, catalogue, standing }: Story,
  run: StoryRun,
  diagnosis: Diagnosis | null,
  rig: RigRow,
  system: SystemRow | undefined,
  history: Omit<Tried, "relieves">[],
  minutes: number,
): Suggestion[] {
  const conditions = { ...firstConditions(rig.spec), ...run.conditions, ...standing.conditions };
  const levers = leversFor({
    catalogue,
    settings: standing.settings,
    rules: job.rules,
    spec: rig.spec,
    conditions,
    usefulScale: usefulScaleOf(rig, system, conditions.display),
  });
  const relieves = (key: string) =>
    catalogue.find((setting) => setting.key === key)?.relieves ?? ["processor" as const, "graphics" as const];
  return suggest({
    levers,
    diagnosis,
    aim: job.aim,
    speedPercent: speedOf(run),
    steady: run.verdict.grade === "steady",
    history: history.map((each) => ({ ...each, relieves: relieves(each.key) })),
    sceneMinutes: minutes,
    pixelShare: diagnosis?.pixelShare ?? null,
  });
}

/** Least scale whose picture has as many lines as a display shows of it; null where the system isn't known. */
export function usefulScaleOf(
  { spec }: RigRow,
  system: SystemRow | undefined,
  display: string | null | undefined,
): number | null {
  const shown = displayIn(spec, display);
  return system ? planScales(system.screens, shown, "contain", "stacked").usefulScale : null;
}

/** Diagnosis of one run of a job, for a screen that selects another than the newest. */
export async function viewDiagnosis(jobId: string, runId: string): Promise<Diagnosis> {
  const job = await findJob(jobId);
  if (!job) throw notFound("job");
  const { story, rig, system } = await storyWithRig(job);
  const run = story.runs.find(({ id }) => id === runId);
  if (!run) throw notFound("run");
  return diagnoseRun(await withSegments(run), story, rig, system);
}

/** A run with its scenes, which lists leave out. */
async function withSegments(run: StoryRun): Promise<StoryRun> {
  const whole = await findRun(run.id);
  return whole?.summary ? { ...run, summary: whole.summary } : run;
}

/** A job's story with the rig and system it plays on. */
export async function storyWithRig(
  job: JobRow,
  options?: { segments: boolean },
): Promise<{
  story: Story;
  rig: RigRow;
  system: SystemRow | undefined;
  title: NonNullable<Awaited<ReturnType<typeof findTitle>>>;
}> {
  const [story, rig, systems, title] = await Promise.all([
    storyOf(job, options),
    findRig(job.rigId),
    listSystems(),
    findTitle(job.titleId),
  ]);
  if (!rig || !title) throw notFound("rig");
  return { story, rig, title, system: systems.find(({ id }) => id === title.systemId) };
}

/** Figures of a hand tally with their uncertainty; null for any other run. */
async function tallyOf(run: Pick<StoryRun, "id" | "source" | "yardstick">): Promise<ThreadRun["tally"]> {
  if (run.source !== "tally") return null;
  const trace = await findTrace(run.id);
  return trace?.form === "interval" ? tallyFigures([...trace.rates], run.yardstick.targetFps) : null;
}
