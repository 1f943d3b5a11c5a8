import { readQuery } from "@/contract";
import "@/server/system/work";
import { deviceUnder, simulate, underSettings, type SimWorkload } from "@/core/simulator";
import { durationOf } from "@/core/trace";
import { armOrder } from "@/core/compare";
import {
  firstConditions,
  firstPreflight,
  type Conditions,
  type NewRun,
  type RigSpec,
  type Settings,
  first,
} from "@/core/kit";
import { emptyPlan, kindOf, armAt } from "@/core/trial";
import { asFarAsItGoes, lendingDesk, type HouseRules } from "@/core/verdict";
import {
  addEngine,
  addHouseRules,
  addPreflight,
  addJob,
  addRig,
  addSystem,
  addTitle,
  buildNamed,
  claimSeed,
  countSeededJobs,
  findJob,
  findRig,
  findTrial,
  idOfNamed,
  listCampaigns,
  listHouseRules,
  putAbility,
  putBench,
  removeSeeded,
  titlesNamed,
  transact,
  type SeededNames,
} from "@/data";
import { theApplication as us, type Actor } from "@/server/actor";
import { closeJob } from "@/server/jobs/closeJob";
import { decideTrial } from "@/server/trials/decideTrial";
import { reviseRig } from "@/server/kit/changeKit";
import { addFault } from "@/server/runs/faults";
import { keepRun, type ImportedRun } from "@/server/runs/keepRun";
import { loadStory } from "@/server/jobs/loadStory";
import { addTrial } from "@/server/trials/planTrial";
import { liftValue, planCheck } from "@/server/profiles/changeProfile";
import { viewProfile } from "@/server/profiles/viewProfile";
import { Problem } from "@/server/problem";
import { reckonTrial } from "@/server/trials/viewTrial";
import { writing } from "@/server/writing";
import { devices } from "./devices";
import { campaigns, runCampaign } from "./campaigns";
import { abilities, engines, rigs, systems, titles } from "./kit";
import { stories, type StoryStep, type DemoStory } from "./stories";

const seedName = "lending library 1";
const day = 86_400_000,
  minute = 60_000;

/**
 * Adds the demo once: the kit, the jobs, and runs made on the simulated bench, measured, compared and decided
 * as any run is.
 * @param now when the demo is first started; its runs were made in the days before
 * @returns false when it is there already
 */
export async function seedDemo(now: Date): Promise<boolean> {
  // All of it or nothing: a start that is stopped meanwhile leaves no half of a demo.
  return transact(async () => {
    await addPreflightOnce();
    if (!(await claimSeed(seedName))) return false;
    await addDemo(now);
    return true;
  });
}

const addPreflightOnce = async () => {
  if (await claimSeed("pre-flight 1")) await addPreflight(firstPreflight, false);
};

/**
 * What a store without the demo starts with: pre-flight items, and one set of house rules where there is none.
 */
export async function seedEmpty(): Promise<void> {
  return transact(async () => {
    await addPreflightOnce();
    if ((await listHouseRules()).length === 0)
      await addHouseRules(
        "Usual",
        { ...asFarAsItGoes, mayChange: { ...asFarAsItGoes.mayChange, clocks: false } },
        true,
      );
  });
}

const names: SeededNames = {
  rigs: rigs.map(({ name }) => name),
  titles: titles.map(({ name }) => name),
  engines: engines.map(({ name }) => name),
  systems: systems.map(({ name }) => name),
  houseRules: ["Lending desk", "As far as it goes"],
  campaigns: campaigns.map(({ name }) => name),
};

/** How much of the demo is there; `own` are those of its jobs that somebody brought runs of their own into. */
export const viewDemo = async () => countSeededJobs(names);

/** Thousands of rows, with traces: taken away and brought back, not undone. */
const wholeStore = { undone: false };

/** Takes the demo away. What somebody added to stays, with all that it needs. */
export async function removeDemo(actor: Actor): Promise<void> {
  return writing(
    actor,
    async (touch) => {
      touch({ kind: "kit", id: "rigs" }, { kind: "jobs", id: "" }, { kind: "bench", id: "" });
      await removeSeeded(names);
      await seedEmpty();
    },
    wholeStore,
  );
}

/** Brings the demo back, as it was at the first start. */
export async function bringDemo(actor: Actor, now = new Date()): Promise<void> {
  return writing(
    actor,
    async (touch) => {
      const { jobs, own } = await viewDemo();
      if (jobs > own)
        throw new Problem(409, "The demo is there already.", "Take it away first, to have it as it was.");
      touch({ kind: "kit", id: "rigs" }, { kind: "jobs", id: "" }, { kind: "bench", id: "" });
      await claimSeed(seedName);
      await addDemo(now);
    },
    wholeStore,
  );
}

async function addDemo(now: Date): Promise<void> {
  const rules = {
    "Lending desk": await rulesNamed("Lending desk", lendingDesk),
    "As far as it goes": await rulesNamed("As far as it goes", asFarAsItGoes),
  };
  const rigIds = new Map<string, string>();
  for (const rig of rigs) rigIds.set(rig.name, (await idOfNamed("rig", rig.name)) ?? (await addRig(rig)));
  const systemIds = new Map<string, string>();
  for (const system of systems)
    systemIds.set(system.name, (await idOfNamed("system", system.name)) ?? (await addSystem(system)));
  const titleIds = new Map<string, string>();
  for (const { system, ...title } of titles) {
    const systemId = named(systemIds, system);
    const [there] = await titlesNamed(title.name, systemId);
    titleIds.set(title.name, there?.id ?? (await addTitle({ ...title, systemId })));
  }
  const buildIds = new Map<string, string>();
  for (const { name, systems: runs, notes, builds, file, catalogue } of engines) {
    const there = await idOfNamed("engine", name);
    if (there) {
      buildIds.set(name, await buildNamed(there, ""));
      continue;
    }
    const made = await addEngine({
      name,
      notes,
      catalogue,
      configFiles: [{ name: file[0], format: file[1], folder: "beside the engine" }],
      backEnds: [
        { name: "Vulkan", drivers: ["as shipped", "newest"] },
        { name: "OpenGL", drivers: ["as shipped"] },
      ],
      systemIds: runs.map((system) => named(systemIds, system)),
      builds: builds.map(([version, branch, date]) => ({ version, branch, date, notes: "" })),
    });
    buildIds.set(name, first(made.buildIds));
  }
  let last = "";
  const tellers = new Map<string, Teller>();
  for (const [index, story] of stories.entries()) {
    const began = now.getTime() - story.daysAgo * day;
    last = await addJob(
      {
        rigId: named(rigIds, story.rig),
        titleId: named(titleIds, story.title),
        buildId: named(buildIds, story.engine),
        houseRulesId: rules[story.rules ?? "Lending desk"],
        aim: story.aim,
        targetFps: null,
        strategy: "climb",
      },
      new Date(began),
    );
    const teller = new Teller(last, story, buildIds, 1000 * (index + 1), began);
    await teller.tell();
    tellers.set(`${story.title} on ${story.rig}`, teller);
  }
  await liftShared(named(rigIds, "Tansy"), "Sallow");
  await newDriver(named(rigIds, "Pipit"), now);
  await named(tellers, "The Orchard Ledger on Pipit").check(
    {
      rigId: named(rigIds, "Pipit"),
      titleId: named(titleIds, "The Orchard Ledger"),
      engine: "Plait",
      keys: ["even_pacing"],
    },
    now.getTime() - 0.1 * day,
  );
  for (const { engine, ...ability } of abilities) {
    const engineId = await idOfNamed("engine", engine);
    if (engineId) await putAbility({ ...ability, engineId, checkedBy: "the lending desk" });
  }
  // One that somebody brought runs of their own into stayed when the demo was taken away.
  const there = (await listCampaigns()).map(({ name }) => name);
  for (const [index, campaign] of campaigns.entries())
    if (!there.includes(campaign.name)) await runCampaign(campaign, now, 90_000 + 1000 * index);
  const story = first(stories.slice(-1));
  const rig = rigNamed(story.rig);
  await putBench({
    rigId: named(rigIds, rig.name),
    jobId: last,
    houseRulesId: rules["Lending desk"],
    conditions: { ...firstConditions(rig.spec), powerMode: story.powerMode },
  });
}

/** Moves up what two titles of a system were found to share. */
async function liftShared(rigId: string, engine: string): Promise<void> {
  const engineId = await idOfNamed("engine", engine);
  if (!engineId) return;
  const view = await viewProfile(readQuery("viewProfile", { rig: rigId, engine: engineId }));
  for (const { key, value } of view.lifts)
    await liftValue(us, { rigId, engineId, systemId: view.systemId, key, value, saw: view.saw });
}

/** A newer driver on the phone: what was measured before it is stale until it is checked. */
async function newDriver(rigId: string, now: Date): Promise<void> {
  const rig = await findRig(rigId);
  if (!rig || rig.revision > 1) return;
  const driver = { version: "616", date: new Date(now.getTime() - 2 * day).toISOString().slice(0, 10) };
  await reviseRig(us, rigId, { name: rig.name, spec: { ...rig.spec, driver }, note: "a newer driver" });
}

/** House rules by their name, made where they aren't there; the first set of all is the default. */
async function rulesNamed(name: string, rules: HouseRules): Promise<string> {
  const there = await listHouseRules();
  return (
    there.find((each) => each.name === name)?.id ??
    addHouseRules(name, rules, !there.some(({ isDefault }) => isDefault))
  );
}

/** What the demo calls by a name. */
function named<Thing>(things: ReadonlyMap<string, Thing>, name: string): Thing {
  const found = things.get(name);
  if (found === undefined) throw new Error(`The demo has no “${name}”.`);
  return found;
}

const rigNamed = (name: string) => named(new Map(rigs.map((rig) => [rig.name, rig])), name);

/** Lives through one story: runs, trials and decisions in their order. */
class Teller {
  private readonly spec: RigSpec;

  constructor(
    private readonly jobId: string,
    private readonly story: DemoStory,
    private readonly buildIds: Map<string, string>,
    private seed: number,
    private at: number,
  ) {
    this.spec = rigNamed(story.rig).spec;
  }

  async tell(): Promise<void> {
    for (const step of this.story.steps) {
      if (step.do === "run") await this.runs(step);
      else if (step.do === "trial") await this.trial(step);
      else await closeJob(us, this.jobId, { note: step.note }, null, this.moment(5));
    }
  }

  /** A short check of what the profile says, planned and run as anybody would. */
  async check(
    { engine, keys, ...of }: { rigId: string; titleId: string; engine: string; keys: string[] },
    at: number,
  ): Promise<void> {
    this.at = at;
    const engineId = await idOfNamed("engine", engine);
    if (!engineId) throw new Error(`The demo has no engine called ${engine}.`);
    const buildId = named(this.buildIds, engine);
    const { trialId } = await planCheck(us, { ...of, engineId, buildId, keys }, this.moment(1));
    const trial = await findTrial(trialId);
    const standing = await this.standing();
    for (const arm of trial ? armOrder(trial.arms.length, trial.rounds) : []) {
      const { settings, name: label } = armAt(trial ?? { arms: [] }, arm);
      await this.run({
        settings,
        conditions: standing.conditions,
        engine: buildId,
        label,
        cold: false,
        trialId,
        arm,
      });
    }
    const { advice } = await reckonTrial(trialId);
    await decideTrial(
      us,
      trialId,
      { choice: advice.choice, arm: advice.arm, reason: "" },
      null,
      this.moment(3),
    );
  }

  private moment(minutes: number): Date {
    this.at += minutes * minute;
    return new Date(this.at);
  }

  /** What holds now; before the first run, the engine's defaults. */
  private async standing() {
    const job = await findJob(this.jobId);
    if (!job) throw new Error("The story's job is gone.");
    return (await loadStory(job)).standing;
  }

  private async runs({
    label,
    settings = {},
    conditions = {},
    times,
    cold = false,
  }: Extract<StoryStep, { do: "run" }>): Promise<void> {
    const standing = await this.standing();
    const made = { ...standing.settings, ...settings };
    for (let k = 0; k < times; k++)
      await this.run({
        settings: made,
        conditions: { ...standing.conditions, ...conditions },
        engine: standing.buildId,
        label: times > 1 ? `${label}, ${k + 1}` : label,
        cold,
      });
  }

  private async trial({
    kind,
    name,
    arms: wanted,
    rounds,
    cold = false,
    plan,
    order,
    minutes,
    fault,
    decide,
  }: Extract<StoryStep, { do: "trial" }>): Promise<void> {
    const standing = await this.standing();
    const arms = wanted.map((arm, at) => ({
      name: arm.name,
      settings: { ...standing.settings, ...arm.settings },
      conditions: arm.conditions ?? {},
      buildId: arm.engine ? named(this.buildIds, arm.engine) : null,
      level: arm.level ?? null,
      role: kindOf(kind).roleOf({ level: arm.level ?? null, conditions: arm.conditions ?? {} }, at),
    }));
    const { id } = await addTrial(
      us,
      { jobId: this.jobId, kind, name, arms, rounds, cold, plan: { ...emptyPlan, firstRunId: null, ...plan } },
      this.moment(8),
    );
    const made: (ImportedRun & { arm: number })[] = [];
    for (const arm of order ?? armOrder(arms.length, rounds)) {
      const { settings, conditions, buildId, name: label } = armAt({ arms }, arm);
      made.push({
        arm,
        ...(await this.run({
          settings,
          conditions: { ...standing.conditions, ...conditions },
          engine: buildId ?? standing.buildId,
          label: `${name}: ${label}`,
          cold,
          trialId: id,
          arm,
          minutes,
        })),
      });
    }
    if (fault) {
      const { arm, ...noted } = fault;
      const [run] = made.filter((each) => each.arm === arm);
      if (!run) throw new Error("The story notes a fault in an arm without runs.");
      await addFault(us, { ...noted, runId: run.id });
    }
    if (!decide) return;
    const { advice } = await reckonTrial(id);
    const choice = { choice: advice.choice, arm: advice.arm, reason: "" };
    await decideTrial(us, id, choice, null, this.moment(3));
  }

  private async run({
    settings,
    conditions,
    engine,
    label,
    cold,
    trialId = null,
    arm = null,
    minutes,
  }: {
    settings: Settings;
    conditions: Partial<Conditions>;
    engine: string | null;
    label: string;
    cold: boolean;
    trialId?: string | null;
    arm?: number | null;
    minutes?: number;
  }): Promise<ImportedRun> {
    const { story, spec } = this;
    const made: Conditions = {
      ...firstConditions(spec),
      powerMode: story.powerMode,
      clocks: story.clocks ?? firstConditions(spec).clocks,
      roomC: 21,
      capturePath: "simulated bench",
      ...conditions,
    };
    const other = [...this.buildIds].find(([, id]) => id === engine)?.[0];
    const effect = (other === undefined ? undefined : story.engines?.[other]) ?? {};
    const work = underSettings(
      story.workload,
      { ...settings, " engine": "x" },
      { ...story.effects, " engine": { x: effect } },
    );
    const { trace, crashed } = simulate(
      deviceUnder(named(new Map(Object.entries(devices)), story.rig), made),
      minutes ? lengthened(work, minutes) : work,
      this.seed++,
      cold,
    );
    const run: NewRun = {
      jobId: this.jobId,
      source: "simulated",
      label,
      fileName: null,
      settings,
      conditions: made,
      crashed,
      skippedRows: 0,
      preflight: [],
      notes: "",
      cacheState: cold ? "cold" : "warm",
      trialId,
      arm,
    };
    return keepRun(us, run, trace, this.moment(3 + durationOf(trace) / minute));
  }
}

/** The same route walked so often that it takes so many minutes. */
function lengthened<Work extends SimWorkload>(work: Work, minutes: number): Work {
  const once = work.scenes.reduce((sum, { seconds }) => sum + seconds, 0) / 60;
  return { ...work, passes: Math.ceil(minutes / once) };
}
