import { z } from "zod";
import {
  adviseComparison,
  adviseScreening,
  decideRate,
  effectWords,
  keepOrPutBack,
  limiterOf,
  overdriveByScene,
  pairEffects,
  recommendedArm,
  screeningEffects,
  type ArmEvidence,
  type Design,
  type TrialOutcome,
} from "@/core/advise";
import { compareArms, effectiveFps, givesRounds, rigNoise, type NoiseFloor } from "@/core/compare";
import {
  armSchema,
  choiceSchema,
  displayIn,
  isSweep,
  memoryLeft,
  mostArms,
  newTrialSchema,
  type NewTrial,
} from "@/core/kit";
import { fitSweep, type SweepFit } from "@/core/sweep";
import type { Trace } from "@/core/trace";
import { targetOf, type HouseRules } from "@/core/verdict";
import type { JobRow, PlanView, RigRow, SystemRow, TitleDetail, TrialNode, TrialView } from "@/core/records";
import * as data from "@/data";
import { usableIn, type Story, type StoryRun } from "./jobStory";
import { Problem, notFound } from "./problem";
import { sceneMinutes, storyWithRig, threadRun, usefulScaleOf } from "./viewJob";

async function jobOf(id: string): Promise<JobRow> {
  const job = await data.findJob(id);
  if (!job) throw notFound("job");
  return job;
}

const openOnly = (job: JobRow) => {
  if (job.closedAt) throw new Problem(409, "This job is closed.", "Open it again to go on with it.");
};

/** What house rules forbid an arm to change. */
function forbidden(trial: NewTrial, { mayChange }: HouseRules): string | null {
  const changes = (key: "powerMode" | "clocks") =>
    new Set(trial.arms.map(({ conditions }) => conditions[key])).size > 1;
  if (!mayChange.powerMode && changes("powerMode"))
    return "The house rules of this job don't allow the power mode to be changed.";
  return !mayChange.clocks && changes("clocks")
    ? "The house rules of this job don't allow clocks to be changed."
    : null;
}

/** Begins a trial or a sweep: what is compared, in which order, from what is in force now. */
export async function addTrial(input: unknown, createdAt?: Date): Promise<{ id: string; number: number }> {
  const trial = newTrialSchema.parse(input);
  const job = await jobOf(trial.jobId);
  openOnly(job);
  const refused = forbidden(trial, job.rules);
  if (refused)
    throw new Problem(422, refused, "Choose other house rules for the job, or leave it as it is.", {
      arms: refused,
    });
  const { story } = await storyWithRig(job);
  return data.addTrial(
    trial,
    { settings: story.standing.settings, conditions: story.standing.conditions, targetFps: job.targetFps },
    createdAt,
  );
}

interface Loaded {
  job: JobRow;
  trial: TrialNode;
  runs: StoryRun[];
  story: Story;
  rig: RigRow;
  system: SystemRow | undefined;
  title: TitleDetail;
  noise: NoiseFloor;
  measured: boolean;
}

async function load(id: string): Promise<Loaded> {
  const row = await data.findTrial(id);
  if (!row) throw notFound("trial");
  const job = await jobOf(row.jobId);
  const [{ story, rig, system, title }, repeats] = await Promise.all([
    storyWithRig(job, { segments: true }),
    data.repeatsOnRig(job.rigId),
  ]);
  const trial = story.trials.find((each) => each.id === id)!;
  const { noise, measured } = rigNoise(repeats);
  return {
    job,
    trial,
    story,
    rig,
    system,
    title,
    noise,
    measured,
    runs: story.runs.filter((run) => run.trialId === id),
  };
}

const tracesOf = async (runs: StoryRun[]): Promise<Trace[]> =>
  (await Promise.all(runs.map(({ id }) => data.findTrace(id)))).filter((trace) => trace !== null);

function displayOf(rig: RigRow, runs: StoryRun[]) {
  return displayIn(rig.spec, runs.at(-1)?.conditions.display);
}

const faulty = (run: StoryRun) => run.faults.includes("severe") || run.faults.includes("blocking");

async function fitOf({ trial, runs, rig, system, noise, job }: Loaded): Promise<SweepFit | null> {
  if (!isSweep(trial.kind) || trial.kind === "rate") return null;
  const usable = usableIn(trial, runs);
  const needsTrace = trial.kind === "heat" || trial.kind === "clocks" || trial.kind === "memory";
  const sweepRuns = await Promise.all(
    usable.map(async (run) => ({
      arm: run.arm!,
      number: run.number,
      summary: run.summary,
      crashed: run.crashed,
      artefacts: faulty(run),
      trace: needsTrace ? await data.findTrace(run.id) : null,
    })),
  );
  const native = system?.screens.reduce((sum, { width, height }) => sum + width * height, 0) ?? 1;
  const most = Math.max(...trial.arms.map(({ level }) => level ?? 1));
  return fitSweep(trial.kind, trial.arms, sweepRuns, {
    targetFps: runs.at(-1)?.yardstick.targetFps ?? targetOf(job),
    nativeFps: job.nativeFps,
    limitC: rig.spec.temperatureLimitC,
    memoryMb: memoryLeft(rig.spec),
    memoryGb: rig.spec.memoryGb,
    batteryWh: rig.spec.batteryWh,
    nativePixels: native,
    offeredScales: Array.from({ length: Math.ceil(most) + 1 }, (_, k) => k + 1),
    usefulScale:
      trial.kind === "resolution" ? usefulScaleOf(rig, system, runs.at(-1)?.conditions.display) : null,
    noise,
    soakMinutes: trial.plan.soakMinutes ?? 10,
    elsewhereWatts: trial.plan.elsewhereWatts ?? 0,
  });
}

async function rateOfTrial({ trial, runs, story, title, job }: Loaded): Promise<TrialView["rate"]> {
  if (trial.kind !== "rate") return null;
  const usable = usableIn(trial, runs);
  const free = usable.filter(({ arm }) => trial.arms[arm!].level === null).at(-1);
  if (!free) return null;
  const trace = await data.findTrace(free.id);
  if (!trace) return null;
  const limiter = limiterOf(story.catalogue);
  const decision = decideRate(trace, {
    nativeFps: job.nativeFps,
    tied: job.tied,
    refreshHz: free.yardstick.refreshHz,
    patches: title.patches,
    limiterCountsDouble: limiter?.countsDouble ?? false,
    rules: free.rules.measuring,
  });
  // An overdriven emulated clock is an arm of its own, without a cap.
  const driven = usable
    .filter(
      ({ arm }) =>
        arm !== free.arm &&
        trial.arms[arm!].level === null &&
        /overdrive|overdriven/i.test(trial.arms[arm!].name),
    )
    .at(-1);
  const missing =
    free.summary.pacing && free.summary.pacing.cadenceShare > 0.97 && free.summary.pacing.cadence > 0
      ? [
          "Almost every frame falls on one number of refreshes: was the cap really lifted? A capped run can't say what it would do free.",
        ]
      : [];
  return {
    ...decision,
    missing,
    overdriven: driven ? overdriveByScene(free.summary.segments, driven.summary.segments, job.nativeFps) : [],
  };
}

function effectsOf({ trial, runs, noise, story }: Loaded): TrialOutcome["effects"] {
  if (trial.kind !== "screen") return [];
  const usable = usableIn(trial, runs);
  const signs: Design = trial.arms.map(({ settings }) =>
    trial.plan.keys.map((key) => (settings[key] === trial.before.settings[key] ? -1 : 1)),
  );
  const rates = trial.arms.map((_, arm) => {
    const own = usable.filter((run) => run.arm === arm);
    return own.length === 0
      ? null
      : own.reduce((sum, run) => sum + Math.log(effectiveFps(run.summary, run.yardstick.nativeFps)), 0) /
          own.length;
  });
  if (rates.filter((rate) => rate !== null).length * 2 < trial.arms.length) return [];
  return screeningEffects(signs, rates, noise).map((effect) => {
    const key = trial.plan.keys[effect.factor];
    return { ...effect, key, label: story.catalogue.find((setting) => setting.key === key)?.label ?? key };
  });
}

const plural = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;

/** What has changed since a trial was begun that makes its runs less alike, in words. */
function driftOf({ trial, runs, rig }: Loaded): string[] {
  const usable = usableIn(trial, runs);
  const [first] = usable;
  if (!first) return [];
  const made: string[] = [];
  if (usable.some(({ rigRevisionId }) => rigRevisionId !== rig.revisionId))
    made.push(`${rig.name} has a newer revision (${rig.revision}) than some of these runs were made on.`);
  const rooms = usable
    .map(({ conditions }) => conditions.roomC)
    .filter((room): room is number => room !== null);
  if (rooms.length > 1 && Math.max(...rooms) - Math.min(...rooms) > 4)
    made.push(`The room was between ${Math.min(...rooms)} and ${Math.max(...rooms)} °C.`);
  if (new Set(usable.map(({ conditions }) => conditions.capturePath)).size > 1)
    made.push("The capture path changed between runs: capturing costs speed.");
  for (const [key, words] of [
    ["pluggedIn", "Some runs were plugged in, others not."],
    ["docked", "Some runs were docked, others handheld."],
    ["cooler", "The cooler was on for some runs only."],
  ] as const) {
    const byArm = trial.arms.map((arm, index) => ({
      set: arm.conditions[key],
      seen: new Set(usable.filter((run) => run.arm === index).map(({ conditions }) => conditions[key])),
    }));
    const mixed = byArm.some(({ seen }) => seen.size > 1);
    const across = new Set(byArm.flatMap(({ set, seen }) => (set === undefined ? [...seen] : []))).size > 1;
    if (mixed || across) made.push(words);
  }
  const days =
    (Math.max(...usable.map(({ madeAt }) => new Date(madeAt).getTime())) -
      Math.min(...usable.map(({ madeAt }) => new Date(madeAt).getTime()))) /
    86_400_000;
  if (days >= 1) made.push(`Its runs lie ${plural(Math.round(days), "day")} apart.`);
  return made;
}

/** What first and later visits to a run's scenes lost to hitches, where scenes were visited again. */
function passesOf({ id, arm, number, summary }: StoryRun): TrialView["passes"] {
  const revisited = new Set(summary.segments.filter(({ visit }) => visit > 1).map(({ label }) => label));
  if (revisited.size === 0) return [];
  const lost = (first: boolean) =>
    summary.segments.filter(({ label, visit }) => revisited.has(label) && (visit === 1) === first);
  const [firsts, laters] = [lost(true), lost(false)];
  const mean = (list: typeof firsts) => list.reduce((sum, { lostMs }) => sum + lostMs, 0) / list.length;
  return [
    {
      runId: id,
      number,
      arm: arm!,
      firstLostMs: mean(firsts),
      laterLostMs: mean(laters),
      scenes: revisited.size,
    },
  ];
}

export async function viewTrial(id: string): Promise<TrialView> {
  const loaded = await load(id);
  const { job, trial, runs, rig, system, noise, measured } = loaded;
  const [fit, rate, faults] = await Promise.all([fitOf(loaded), rateOfTrial(loaded), data.listFaults(job.id)]);
  const display = displayOf(rig, runs);
  return {
    job,
    trial,
    fit,
    rate,
    noise,
    noiseMeasured: measured,
    effects: effectsOf(loaded),
    drifted: driftOf(loaded),
    passes: runs.flatMap((run) => passesOf(run)),
    runs: await Promise.all(runs.map((run, index) => threadRun(run, runs[index - 1] ?? null))),
    faults: faults.filter(({ runId }) => runs.some((run) => run.id === runId)),
    limits: { temperatureC: rig.spec.temperatureLimitC, batteryWh: rig.spec.batteryWh },
    display: {
      name: display.name,
      width: display.width,
      height: display.height,
      diagonalInch: display.diagonalInch,
    },
    screens: system?.screens ?? [],
  };
}

function evidenceOf({ trial, runs }: Pick<Loaded, "trial" | "runs">): ArmEvidence[] {
  return trial.arms.map(({ name }, arm) => {
    const own = runs.filter((run) => run.arm === arm),
      usable = usableIn(trial, own);
    return {
      name,
      runs: usable.length,
      grades: usable.map(({ verdict }) => verdict.grade),
      crashes: own.filter(({ crashed }) => crashed).length,
      hours: own.reduce((sum, { summary }) => sum + summary.durationMs, 0) / 3_600_000,
      faulted: own.some((run) => run.crashed || faulty(run)),
    };
  });
}

/** What a trial comes to by the runs it has: computed here, kept with the decision. */
async function outcomeOf(loaded: Loaded): Promise<TrialOutcome> {
  const { trial, runs, noise, job } = loaded;
  const arms = evidenceOf(loaded);
  const common = { kind: trial.kind, arms, pairs: [], best: [], effects: [], notes: [] };
  const fromFit = (sentence: string, arm: number | null, notes: string[]): TrialOutcome => ({
    ...common,
    notes,
    headline: sentence,
    advice: keepOrPutBack(arm, sentence),
  });
  if (trial.kind === "screen") {
    const effects = effectsOf(loaded);
    if (effects.length === 0)
      throw new Problem(
        409,
        "Fewer than half of the design's runs are in.",
        "Run some more of its rows, then decide.",
      );
    const { sentence, helping } = adviseScreening(effects);
    // The row that has the most of what helps, and nothing that hurts, is the nearest that was run.
    const wanted = trial.arms
      .map(({ settings }, arm) => ({
        arm,
        score: trial.plan.keys.reduce(
          (sum, key, k) =>
            sum + (settings[key] !== trial.before.settings[key] ? (helping.includes(k) ? 1 : -0.1) : 0),
          0,
        ),
      }))
      .sort((a, b) => b.score - a.score)[0];
    return {
      ...fromFit(sentence, helping.length > 0 ? wanted.arm : null, [
        "Main effects only; how switches act on one another isn't seen.",
      ]),
      effects,
    };
  }
  if (trial.kind === "rate") {
    const rate = await rateOfTrial(loaded);
    if (!rate)
      throw new Problem(409, "The uncapped run is missing.", "Run the scene with the cap lifted, then decide.");
    return fromFit(rate.sentence, recommendedArm(rate, trial.arms), rate.missing);
  }
  const fit = await fitOf(loaded);
  if (fit) {
    const cooling =
      fit.kind === "heat"
        ? fit.rows
            .map(({ coolDownMinutes }) => coolDownMinutes)
            .filter((minutes): minutes is number => minutes !== null)
        : [];
    return {
      ...fromFit(fit.sentence, fit.arm, fit.missing),
      ...(cooling.length > 0 ? { coolDownMinutes: Math.ceil(Math.max(...cooling)) } : {}),
    };
  }
  const byArm = trial.arms.map((_, arm) => usableIn(trial, runs).filter((run) => run.arm === arm));
  const lacking = byArm.findIndex((own) => own.length === 0);
  if (lacking >= 0)
    throw new Problem(
      409,
      `${trial.arms[lacking].name} has no ${trial.cold ? "" : "warm, whole "}run yet.`,
      "Run every arm once at least, then decide.",
    );
  const compared = compareArms(await Promise.all(byArm.map(tracesOf)), {
    targetFps: runs[0].yardstick.targetFps,
    nativeFps: job.nativeFps,
    rules: job.rules.measuring,
    marginPercent: job.rules.marginPercent,
    rounds: givesRounds(
      usableIn(trial, runs).map((run) => run.arm!),
      trial.arms.length,
    ),
    noise,
  });
  const pairs = pairEffects(compared);
  const advice = adviseComparison({ pairs, best: compared.best }, arms);
  const shown = pairs.find(({ a, b }) => a === 0 && b === (advice.arm ?? 1)) ?? pairs[0];
  return {
    ...common,
    pairs,
    best: compared.best,
    advice,
    headline: effectWords(shown),
    notes: [...compared.notes, ...compared.pairs[0].comparison.notes],
  };
}

/** What a trial would be advised to, by the runs it has. */
export const adviseTrial = async (id: string): Promise<TrialOutcome> => outcomeOf(await load(id));

/** Decides a trial: what it came to is worked out from its runs, and kept beside the choice; deciding against it takes a reason. */
export async function decideTrial(
  id: string,
  input: unknown,
  decidedAt?: Date,
): Promise<{ outcome: TrialOutcome }> {
  const choice = choiceSchema.parse(input);
  const loaded = await load(id);
  const { trial, job } = loaded;
  openOnly(job);
  if (trial.decidedAt)
    throw new Problem(409, "This trial is decided already.", "Take the decision back first.");
  if (choice.arm !== null && choice.arm >= trial.arms.length)
    throw new Problem(422, "There is no such arm.", "Choose one of the trial's arms.", {
      arm: "There is no such arm.",
    });
  const outcome = await outcomeOf(loaded);
  const against = choice.choice !== outcome.advice.choice || choice.arm !== outcome.advice.arm;
  if (against && choice.reason === "")
    throw new Problem(
      422,
      `The runs say otherwise: ${outcome.advice.sentence}`,
      "Deciding against it is yours to do: say why, and it is kept with the decision.",
      { reason: "Say why." },
    );
  const level = choice.arm === null ? null : trial.arms[choice.arm].level;
  await data.putDecision(
    trial,
    { ...choice, outcome, decidedAt },
    trial.kind === "rate" && level !== null ? level : undefined,
  );
  return { outcome };
}

/** Takes a decision back; what held before the trial holds again. */
export async function undecideTrial(id: string): Promise<void> {
  const { trial, job } = await load(id);
  openOnly(job);
  if (!trial.decidedAt) throw new Problem(409, "This trial isn't decided.", "There is nothing to take back.");
  await data.putDecision(trial, null, trial.kind === "rate" ? trial.before.targetFps : undefined);
}

const changeSchema = z.object({
  rounds: z.number().int().min(1).max(40).optional(),
  deleted: z.boolean().optional(),
  arm: armSchema.optional(),
});

/** Plans more runs of every arm, adds an arm (the level that would settle a sweep), or takes the trial out of the story (its runs with it) and back. */
export async function changeTrial(id: string, input: unknown): Promise<void> {
  const { rounds, deleted, arm } = changeSchema.parse(input);
  if (deleted !== undefined && !(await data.setTrialDeleted(id, deleted))) throw notFound("trial");
  if (rounds === undefined && arm === undefined) return;
  const trial = await data.findTrial(id);
  if (!trial) throw notFound("trial");
  if (rounds !== undefined) await data.putRounds(id, rounds);
  if (arm === undefined) return;
  if (trial.decidedAt) throw new Problem(409, "This trial is decided.", "Take its decision back to add to it.");
  if (trial.arms.some(({ name }) => name === arm.name))
    throw new Problem(422, "An arm of this name is there already.", "Give it another.", {
      "arm.name": "There already.",
    });
  if (trial.arms.length >= mostArms)
    throw new Problem(422, `A trial holds at most ${mostArms} arms.`, "Begin another.");
  await data.putArms(id, [...trial.arms, arm]);
}

/** What a trial or sweep of a job can be planned from. */
export async function viewPlan(jobId: string): Promise<PlanView> {
  const job = await jobOf(jobId);
  const [{ story, rig, system, title }, builds] = await Promise.all([storyWithRig(job), data.listBuilds()]);
  return {
    job,
    catalogue: story.catalogue,
    standing: { settings: story.standing.settings, conditions: story.standing.conditions },
    spec: rig.spec,
    builds: builds.filter(({ systemIds }) => systemIds.includes(title.systemId)),
    usefulScale: usefulScaleOf(rig, system, story.runs.at(-1)?.conditions.display),
    sceneMinutes: sceneMinutes(title.scenes),
    coolDownMinutes:
      story.trials
        .map(({ outcome }) => outcome?.coolDownMinutes)
        .filter((minutes) => minutes !== undefined)
        .at(-1) ?? null,
  };
}
