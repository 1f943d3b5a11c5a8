import type { Body, Output } from "@/contract";
import { passMinutes } from "@/core/job";
import { isOwn } from "@/core/kit";
import type { TrialRow, UnattendedTerms, Work } from "@/core/records";
import { armAt, type Arm, type ArmConditions } from "@/core/trial";
import { words } from "@/core/words";
import * as data from "@/data";
import type { Actor, Asker } from "@/server/actor";
import { Problem, notFound } from "@/server/problem";
import { loadTrial, understood, type LoadedTrial } from "@/server/trials/trialFacts";
import { writing } from "@/server/writing";

/** The trial's place; what is left out is none. @throws Problem 404 */
async function rowOf(id: string) {
  const row = await data.findTrial(id);
  if (!row) throw notFound("trial");
  return row;
}

export async function viewUnattended(id: string): Promise<Output<"viewUnattended">> {
  const { jobId } = await rowOf(id);
  const job = await data.findJob(jobId);
  if (!job) throw notFound("job");
  const [unattended, devices, rig] = await Promise.all([
    data.findUnattended(id),
    data.listDevices(),
    data.findRig(job.rigId),
  ]);
  return {
    unattended,
    devices: devices.filter(({ rigId }) => rigId === job.rigId).map(({ name }) => name),
    limitC: rig?.spec.temperatureLimitC ?? null,
  };
}

/** Sets a trial to run by itself. @throws Problem 409 where it is decided, 422 above the maker's limit */
export async function setUnattended(actor: Actor, id: string, terms: UnattendedTerms): Promise<void> {
  const row = await rowOf(id);
  if (row.decidedAt) throw new Problem(409, "This trial is decided.", "Take its decision back to run it.");
  const byHand = onlyByHand(row);
  if (byHand !== null)
    throw new Problem(
      422,
      `${byHand} differs between its arms, which a device doesn't set by itself.`,
      "Make its runs by hand.",
    );
  const job = await data.findJob(row.jobId);
  if (!job || job.closedAt) throw new Problem(409, "Its job is closed.", "Open the job again first.");
  const limit = (await data.findRig(job.rigId))?.spec.temperatureLimitC ?? null;
  if (limit !== null && terms.limitC !== null && terms.limitC > limit)
    throw new Problem(422, `The maker's limit of this rig is ${limit} °C.`, "Stop no later than that.", {
      limitC: `At most ${limit} °C.`,
    });
  return writing(actor, async (touch) => {
    await data.putUnattended(id, { ...terms, limitC: terms.limitC ?? limit }, actor.name);
    await data.noteUnattended(id, { what: "set", text: actor.name });
    touch({ kind: "trial", id });
  });
}

/** What differs between a trial's arms and is set by hand alone, as it begins a sentence; null where nothing does. */
function onlyByHand({ arms }: Pick<TrialRow, "arms">): string | null {
  const differs = (of: (arm: Arm) => unknown) =>
    new Set(arms.map((arm) => JSON.stringify(of(arm) ?? null))).size > 1;
  if (differs(({ buildId }) => buildId)) return "The build";
  const condition = [...new Set(arms.flatMap(({ conditions }) => Object.keys(conditions)))].find((key) =>
    differs(({ conditions }) => conditions[key as keyof ArmConditions]),
  );
  if (condition !== undefined) return `“${condition}”`;
  const own = [...new Set(arms.flatMap(({ settings }) => Object.keys(settings)))]
    .filter(isOwn)
    .find((key) => differs(({ settings }) => settings[key]));
  return own === undefined ? null : `“${own}”`;
}

/** Stops a trial that runs by itself. */
export async function endUnattended(actor: Actor, id: string): Promise<void> {
  await rowOf(id);
  return writing(actor, async (touch) => {
    if (!(await end(id, `Stopped by ${actor.name}.`)))
      throw new Problem(409, "This trial doesn't run by itself.", "There is nothing to stop.");
    touch({ kind: "trial", id });
  });
}

async function end(id: string, why: string): Promise<boolean> {
  const ended = await data.closeUnattended(id, why);
  if (ended) await data.noteUnattended(id, { what: "stopped", text: why });
  return ended;
}

/** What a rig's agent runs next. */
export async function takeWork(actor: Asker): Promise<Output<"takeWork">> {
  const { rigId } = actor;
  if (rigId === undefined) throw notFound("device");
  let why = "No trial on this rig runs by itself.";
  for (const id of await data.waitingOn(rigId, actor.id)) {
    const next = await nextOf(actor, id);
    if (typeof next !== "string") return { work: next, why: "" };
    why = next;
  }
  return { work: null, why };
}

/** The next run of a trial, or why it has none: then it has ended. */
async function nextOf(actor: Asker, id: string): Promise<Work | string> {
  const unattended = await data.findUnattended(id);
  if (!unattended) return "It was never set to run by itself.";
  const { terms } = unattended;
  let loaded = await loadTrial(id);
  const named = (why: string) => `${loaded.trial.name}: ${why}`;
  const ends = async (why: string) =>
    writing(actor, async (touch) => {
      await end(id, why);
      touch({ kind: "trial", id });
      return named(why);
    });
  if (terms.until !== null && Date.parse(terms.until) <= Date.now())
    return ends("The time that it was given is over.");
  const crashes = loaded.story.runs.filter(
    ({ trialId, crashed, madeAt }) => trialId === id && crashed && madeAt >= unattended.setAt,
  ).length;
  if (crashes >= terms.mostCrashes)
    return ends(`${crashes === 1 ? "A run" : `${crashes} runs`} crashed: no further one is made.`);
  if (await isOver(id, loaded)) return ends(await waiting(id, loaded));
  if (loaded.trial.left.length === 0) {
    if (loaded.trial.rounds >= terms.mostRounds) return ends(await waiting(id, loaded));
    const rounds = loaded.trial.rounds + 1;
    await writing(actor, async (touch) => {
      await data.putPlanned(id, { rounds });
      await data.noteUnattended(id, { what: "round", text: `Undecided: round ${rounds} is added.` });
      touch({ kind: "trial", id }, { kind: "job", id: loaded.job.id });
    });
    loaded = await loadTrial(id);
  }
  const [arm] = loaded.trial.left;
  if (arm === undefined) return ends(await waiting(id, loaded));
  const work = await workOf(loaded, arm, terms);
  const taken = await writing(actor, async (touch) => {
    const isOurs = await data.takeUnattended(id, actor.id);
    if (isOurs && unattended.takenBy !== actor.name)
      await data.noteUnattended(id, { what: "taken", text: actor.name });
    touch({ kind: "trial", id });
    return isOurs;
  });
  return taken ? work : named("Another device has taken it.");
}

/** Whether its rounds so far decide it: a sweep is over with its plan, a comparison once every pair is clear. */
async function isOver(id: string, { trial, facts }: LoadedTrial): Promise<boolean> {
  const roundIsOver = trial.left.length % trial.arms.length === 0 && trial.runs.every((runs) => runs > 0);
  if (!roundIsOver) return false;
  const { outcome, reading } = await understood(id, facts);
  const pairs = outcome?.pairs ?? [];
  if (pairs.length > 0) return pairs.every(({ decision }) => decision !== "undecided");
  return trial.left.length === 0 && reading !== null;
}

/** What stands in the morning: the computed decision, waiting for a person. */
async function waiting(id: string, { facts }: LoadedTrial): Promise<string> {
  const { outcome, missing } = await understood(id, facts);
  const said = outcome?.advice.sentence ?? missing[0];
  return said ? `The decision waits for you. ${words(said)}` : "The decision waits for you.";
}

async function workOf(
  { job, trial, story, title, holds }: LoadedTrial,
  arm: number,
  terms: UnattendedTerms,
): Promise<Work> {
  const { name, settings, conditions, buildId } = armAt(trial, arm);
  const build = buildId === null ? null : ((await data.listBuilds()).find(({ id }) => id === buildId) ?? null);
  const minutes = trial.plan.minutes ?? passMinutes(title.scenes, story.runs);
  const worst = title.scenes.find((scene) => scene.worst) ?? title.scenes[0];
  const asks = (key: "powerMode" | "clocks") =>
    conditions[key] !== undefined && conditions[key] !== holds.conditions[key] ? conditions[key] : null;
  return {
    trialId: trial.id,
    arm,
    armName: name,
    engine: build?.engine ?? job.engine,
    build: build?.version ?? job.build,
    title: job.title,
    scene: worst?.name ?? "",
    seconds: Math.max(1, Math.round(60 * minutes)),
    // What isn't an engine's own is as it lies on the bench: arms that differ in it aren't run by themselves.
    settings: Object.fromEntries(Object.entries(settings).filter(([key]) => !isOwn(key))),
    powerMode: asks("powerMode"),
    clocks: asks("clocks"),
    terms,
  };
}

/** Notes what a device says of a trial that it runs. A refusal or a stop ends it. */
export async function tellWork(
  actor: Asker,
  id: string,
  { what, text, temperatureC }: Body<"tellWork">,
): Promise<{ goesOn: boolean }> {
  const row = await data.findTrial(id);
  const job = row ? await data.findJob(row.jobId) : null;
  if (!row || !job || job.rigId !== actor.rigId) throw notFound("trial");
  return writing(actor, async (touch) => {
    const goesOn = row.decidedAt === null && (await data.takeUnattended(id, actor.id));
    if (!goesOn) return { goesOn };
    const isEnd = what === "refused" || what === "stopped";
    // Saying nothing only asks whether it goes on, and keeps others from taking it.
    if (what === "told" && text === "") return { goesOn };
    await data.noteUnattended(id, { what, text, temperatureC });
    if (isEnd) await data.closeUnattended(id, text);
    touch({ kind: "trial", id });
    return { goesOn: !isEnd };
  });
}
