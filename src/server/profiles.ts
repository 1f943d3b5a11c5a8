import { setImmediate as breath } from "node:timers/promises";
import { group } from "d3-array";
import {
  carrySchema,
  checkSchema,
  liftSchema,
  profileQuery,
  profileValuesSchema,
  takenProfileSchema,
  undoValueSchema,
} from "@/contract";
import { valueRefusal, type Setting, type Settings, type SettingValue } from "@/core/kit";
import {
  besideOf,
  besideSettings,
  besideValues,
  decisionsOf,
  droppable,
  HeldValues,
  isBeside,
  isCheckable,
  liftable,
  profileRows,
  type Confirmation,
  type Origin,
  type ProfileFile,
  type ProfileRow,
  type RigNow,
  type SetValue,
} from "@/core/profile";
import { isAgainst } from "@/core/trial";
import type { ProfileCheck, ProfileListRow, ProfileView, RigRow } from "@/core/records";
import * as data from "@/data";
import type { Actor } from "./actor";
import { heavy } from "./heavy";
import { bodyBy } from "./readBodies";
import { addJob } from "./addJob";
import { leftBy, triedIn } from "./landing";
import { loadStory } from "./loadStory";
import { addTrial } from "./planTrial";
import { Problem, notFound } from "./problem";
import { writing } from "./writing";

type Place = data.ProfilePlace;

async function loadPlace(place: Place, until: Date | null = null) {
  const [rig, engine, builds, catalogue, held, decided] = await data.together(
    async () => data.findRig(place.rigId),
    async () => data.findEngine(place.engineId),
    async () => data.listBuilds(),
    async () => data.catalogueOf(place.engineId),
    async () => data.standingValues(place, { until }),
    async () => data.decidedOnRig(place),
  );
  if (!rig) throw notFound("rig");
  if (!engine) throw notFound("engine");
  const own = builds.filter(({ engineId }) => engineId === place.engineId);
  return { rig, engine, builds: own, catalogue, held, confirmations: confirmationsOf(decided) };
}

/** What decided trials held against something else, and kept. */
export function confirmationsOf(trials: data.DecidedOnRig[]): Confirmation[] {
  return trials.flatMap((trial) => {
    const [decision] = decisionsOf([trial]);
    const kept = leftBy(trial);
    const held = Object.fromEntries(
      triedIn(trial).flatMap((key) => {
        const value = kept[key];
        return value === undefined ? [] : [[key, value] as const];
      }),
    );
    const { id: trialId, jobId, number, titleId, revisionId, driver, setUp, ranBuildId: buildId } = trial;
    const proof = decision?.proof ?? null;
    const { choice, keptArm: arm, outcome } = trial;
    const against = choice !== null && outcome !== null && isAgainst({ choice, arm }, outcome.advice);
    const open =
      outcome !== null &&
      outcome.pairs.length > 0 &&
      outcome.pairs.every((pair) => pair.decision === "undecided");
    const on = { revisionId, driver, setUp, buildId };
    return [{ trialId, jobId, number, titleId, ...on, against, open, kept: held, proof }];
  });
}

/** Where profiles are, on one rig or on every one. */
export async function listProfiles(rigId?: string): Promise<{ rows: ProfileListRow[] }> {
  const [found, whole, rigs, builds] = await data.together(
    async () => data.listProfiles(),
    async () => data.profilesWhole(rigId ?? null),
    async () => data.listRigs(),
    async () => data.listBuilds(),
  );
  const rows = found.filter((row) => rigId === undefined || row.rigId === rigId);
  const catalogues = new Map<string, Setting[]>();
  for (const { engineId, values } of rows)
    if (values > 0 && !catalogues.has(engineId)) catalogues.set(engineId, await data.catalogueOf(engineId));
  const nameOf = (place: Place) => `${place.rigId} ${place.engineId}`;
  const standing = new Map(whole.standing.map(({ held, ...place }) => [nameOf(place), held]));
  const [decided, titles] = [group(whole.decided, nameOf), group(whole.titles, nameOf)];
  const counted: ProfileListRow[] = [];
  for (const row of rows) {
    const name = nameOf(row);
    const rig = rigs.find(({ id }) => id === row.rigId);
    if (row.values === 0 || !rig) {
      counted.push({ ...row, toConfirm: 0 });
      continue;
    }
    // Others are answered between one profile and the next.
    await breath();
    const now = nowOf(
      rig,
      builds.findLast(({ engineId }) => engineId === row.engineId),
    );
    const checks = checksOf(
      titles.get(name) ?? [],
      [...(catalogues.get(row.engineId) ?? []), ...besideSettings(rig.spec, null)],
      standing.get(name) ?? new HeldValues([]),
      now,
      confirmationsOf(decided.get(name) ?? []),
    );
    counted.push({ ...row, toConfirm: checks.reduce((sum, { rows: open }) => sum + open.length, 0) });
  }
  return { rows: counted };
}

/** A rig as it is now, with a build of an engine. */
const nowOf = (
  { revisionId, revision, spec }: RigRow,
  build: { id: string; version: string } | undefined,
): RigNow => ({
  revisionId,
  revision,
  driver: spec.driver.version,
  drivers: Object.fromEntries((spec.setUps ?? []).map(({ name, driver }) => [name, driver.version])),
  buildId: build?.id ?? "",
  build: build?.version ?? "",
});

/** Values that aren't proven for a title as the rig is now, and that a short check could prove. */
const toCheck = <Value>(rows: ProfileRow<Value>[]): ProfileRow<Value>[] =>
  rows.filter(
    ({ key, standing, value, default: own }) =>
      (standing === "untested" || standing === "stale") && value !== own && isCheckable(key),
  );

/** Titles of a place with values to check. */
function checksOf<Title extends { id: string; systemId: string }>(
  titles: readonly Title[],
  catalogue: Setting[],
  held: HeldValues<SetValue>,
  now: RigNow,
  confirmations: Confirmation[],
): { title: Title; rows: ProfileRow<SetValue>[] }[] {
  const byTitle = group(confirmations, ({ titleId }) => titleId);
  return titles.flatMap((title) => {
    const of = { systemId: title.systemId, titleId: title.id, buildId: now.buildId };
    const rows = toCheck(profileRows(catalogue, held, of, now, byTitle.get(title.id) ?? []));
    return rows.length === 0 ? [] : [{ title, rows }];
  });
}

/** Changes of a profile that are told at once, at most. */
const mostHistory = 1000;

/** A profile in its layers. What was changed last is of the same moment: it may be taken back. */
export const viewProfile = async (query: unknown): Promise<ProfileView> =>
  data.atOneMoment(async () => profileAsked(query));

async function profileAsked(query: unknown): Promise<ProfileView> {
  const asked = profileQuery.parse(query);
  const place = { rigId: asked.rig, engineId: asked.engine };
  const until = isNaN(Date.parse(asked.asOf)) ? null : new Date(asked.asOf);
  const [{ rig, engine, builds, catalogue: ofEngine, held, confirmations }, titles, rigs, history, saw] =
    await data.together(
      async () => loadPlace(place, until),
      async () => data.titlesOfEngine(place),
      async () => data.listRigs(),
      async () => data.valuesEverSet(place, { most: mostHistory, until }),
      async () => data.newestValue(place),
    );
  const build = builds.find(({ id }) => id === asked.build) ?? builds.at(-1);
  const title = titles.find(({ id }) => id === asked.title);
  const systems = [
    ...new Map(titles.map(({ systemId, system }) => [systemId, { id: systemId, name: system }])).values(),
  ];
  const catalogue = [...ofEngine, ...besideSettings(rig.spec, title?.nativeFps ?? null)];
  const systemId = title?.systemId ?? systems.find(({ id }) => id === asked.system)?.id ?? systems[0]?.id ?? "";
  const now = nowOf(rig, build);
  const here = titles.filter((each) => each.systemId === systemId && each.worked).map(({ id }) => id);
  const of = { systemId, titleId: title?.id ?? null, buildId: now.buildId };
  const rows = profileRows(
    catalogue,
    await data.standingWithOrigins(place, { only: of, until }),
    of,
    now,
    confirmations,
    title ? [title.id] : here,
  );
  const checks = checksOf(
    titles.filter(({ worked }) => worked),
    catalogue,
    held,
    now,
    confirmations,
  ).map(({ title: { id: titleId, name }, rows: settings }): ProfileCheck => ({
    titleId,
    title: name,
    settings: settings.map(({ key, label, value, default: own, stale }) => ({
      key,
      label,
      value,
      default: own,
      stale,
    })),
  }));
  return {
    rig: { id: rig.id, name: rig.name, revision: rig.revision },
    rigs: rigs.map(({ id, name }) => ({ id, name })),
    engine: { id: engine.id, name: engine.name, configFiles: engine.configFiles },
    builds: builds.map(({ id, version, branch }) => ({ id, version, branch })),
    buildId: now.buildId,
    systems,
    systemId,
    titles: titles.map(({ id, name, systemId: system, worked }) => ({ id, name, systemId: system, worked })),
    titleId: title?.id ?? null,
    rows,
    history,
    lifts: liftable(catalogue, held, systemId, here),
    drops: { rig: droppable(rows, "rig"), system: droppable(rows, "system"), title: droppable(rows, "title") },
    checks,
    catalogue: ofEngine,
    beside: catalogue.slice(ofEngine.length),
    saw,
  };
}

const touched = { kind: "profile" as const, id: "" };

/** Any rate may be held to; a title's own is what it is where none is decided. */
const anyRate = 60;

/** Everything that a profile's layers can hold: the engine's settings, and what is beside them. */
async function settableOn({ rigId, engineId }: Place): Promise<Setting[]> {
  const [catalogue, rig] = await data.together(
    async () => data.catalogueOf(engineId),
    async () => data.findRig(rigId),
  );
  if (!rig) throw notFound("rig");
  return [...catalogue, ...besideSettings(rig.spec, anyRate)];
}

/** Refuses a change that another one came before: of the same keys, since what was seen. */
async function refuseStale(place: Place, keys: string[], saw: number): Promise<void> {
  const meanwhile = await data.changedSince(place, keys, saw);
  if (meanwhile)
    throw new Problem(
      409,
      `“${meanwhile.key}” was changed meanwhile, in another window or by somebody else.`,
      "Look at what it says now, then set it again.",
      {},
      { key: meanwhile.key, value: meanwhile.value },
    );
}

/** Values with those that have to hold the same. @throws Problem for one that the catalogue doesn't allow */
function allowed(catalogue: Setting[], wanted: { key: string; value: Settings[string] | null }[]) {
  const made = new Map<string, Settings[string] | null>();
  const put = (key: string, value: Settings[string] | null) => {
    const setting = catalogue.find((each) => each.key === key);
    if (!setting)
      throw new Problem(422, `The engine has no setting “${key}”.`, "Add it to the engine's catalogue first.", {
        [key]: "Not in the catalogue.",
      });
    const refusal = value === null ? null : valueRefusal(setting, value);
    if (refusal)
      throw new Problem(422, `${setting.label}: ${refusal}`, "Correct it; nothing was changed.", {
        [key]: refusal,
      });
    if (made.has(key) && made.get(key) !== value)
      throw new Problem(
        422,
        `${setting.label} has to hold the same value as a setting it is linked with.`,
        "Set both alike.",
        {
          [key]: "Linked.",
        },
      );
    if (made.has(key)) return;
    made.set(key, value);
    for (const other of setting.linked) put(other, value);
  };
  for (const { key, value } of wanted) put(key, value);
  return [...made].map(([key, value]) => ({ key, value }));
}

/** Where values of a run come from. @throws Problem for a run of another rig or engine */
async function asRunWasMade({ rigId, engineId }: Place, runId: string): Promise<Origin> {
  const run = await data.findRun(runId);
  const job = run && (await data.findJob(run.jobId));
  if (!run || !job) throw notFound("run");
  if (job.rigId !== rigId || job.engineId !== engineId)
    throw new Problem(422, "That run was made on another rig or engine.", "Take values from a run made here.");
  return { kind: "run", jobId: job.id, runId, number: run.number };
}

/** Sets values in one layer, or has it inherit them again. */
export async function setProfileValues(actor: Actor, input: unknown): Promise<{ changed: number }> {
  const { rigId, engineId, layer, systemId, titleId, buildId, values, origin, saw } =
    profileValuesSchema.parse(input);
  return writing(actor, async (touch) => {
    const place = { rigId, engineId };
    await data.lockProfile(place);
    const [catalogue, held] = await data.together(
      async () => settableOn(place),
      async () => data.standingValues(place, { only: { systemId, titleId } }),
    );
    const wanted = allowed(catalogue, values);
    await refuseStale(
      place,
      wanted.map(({ key }) => key),
      saw,
    );
    const from = origin.kind === "run" ? await asRunWasMade(place, origin.runId) : origin;
    const at = { layer, systemId, titleId, buildId };
    const changed = wanted.filter(({ key, value }) => (held.at({ ...at, key })?.value ?? null) !== value);
    await data.addLayerValues(
      place,
      changed.map((each) => ({ ...at, ...each, origin: from, measuredOn: null, actor: actor.name })),
    );
    touch(touched);
    return { changed: changed.length };
  });
}

/** Takes a change back: the value that stood there before it stands again. */
export async function undoProfileValue(actor: Actor, input: unknown): Promise<{ changed: number }> {
  const { rigId, engineId, id } = undoValueSchema.parse(input);
  return writing(actor, async (touch) => {
    await data.lockProfile({ rigId, engineId });
    const found = await data.valueAndBefore({ rigId, engineId }, id);
    if (!found) throw notFound("change");
    const { change, before } = found;
    await data.addLayerValues({ rigId, engineId }, [
      {
        ...change,
        at: undefined,
        value: before?.value ?? null,
        origin: before?.origin ?? { kind: "by hand" },
        measuredOn: before?.measuredOn ?? null,
        actor: actor.name,
      },
    ]);
    touch(touched);
    return { changed: 1 };
  });
}

/** Moves a value that titles share up to their system; the titles inherit it. */
export async function liftValue(actor: Actor, input: unknown): Promise<{ changed: number }> {
  const { rigId, engineId, systemId, key, value, saw } = liftSchema.parse(input);
  return writing(actor, async (touch) => {
    await data.lockProfile({ rigId, engineId });
    const [catalogue, held, titles] = await data.together(
      async () => settableOn({ rigId, engineId }),
      async () => data.standingValues({ rigId, engineId }),
      async () => data.titlesOfEngine({ rigId, engineId }),
    );
    await refuseStale({ rigId, engineId }, [key], saw);
    const own = titles.filter((title) => title.systemId === systemId);
    const found = liftable(
      catalogue,
      held,
      systemId,
      own.map(({ id }) => id),
    ).find((each) => each.key === key && each.value === value);
    if (!found)
      throw new Problem(
        409,
        "No two titles of this system share that value any more.",
        "Look at the profile as it is now.",
      );
    const names = own.filter(({ id }) => found.titleIds.includes(id)).map(({ name }) => name);
    const base = {
      buildId: null,
      key,
      measuredOn: null,
      actor: actor.name,
      origin: { kind: "lifted" as const, titles: names },
    };
    await data.addLayerValues({ rigId, engineId }, [
      { ...base, layer: "system", systemId, titleId: null, value },
      ...found.titleIds.map((titleId) => ({
        ...base,
        layer: "title" as const,
        systemId: null,
        titleId,
        value: null,
      })),
    ]);
    touch(touched);
    return { changed: 1 + found.titleIds.length };
  });
}

/** Takes what holds for a title, or a system, to another rig: a hypothesis there. */
export async function carryProfile(actor: Actor, input: unknown): Promise<{ changed: number }> {
  const { fromRigId, toRigId, engineId, systemId, titleId, buildId } = carrySchema.parse(input);
  const from = await loadPlace({ rigId: fromRigId, engineId });
  const now: RigNow = {
    revisionId: "",
    revision: 0,
    driver: "",
    drivers: {},
    buildId: buildId ?? "",
    build: "",
  };
  const title = titleId === null ? null : await data.findTitle(titleId);
  const settable = [...from.catalogue, ...besideSettings(from.rig.spec, title?.nativeFps ?? null)];
  const rows = profileRows(settable, from.held, { systemId, titleId, buildId }, now, []);
  return writing(actor, async (touch) => {
    const there = new Map((await settableOn({ rigId: toRigId, engineId })).map((each) => [each.key, each]));
    const place = { rigId: toRigId, engineId };
    await data.lockProfile(place);
    const layer = titleId === null ? ("system" as const) : ("title" as const);
    // Of what is beside the settings, what the other rig knows too.
    const carried = rows.filter(({ key, value, default: own }) => {
      const setting = there.get(key);
      return (
        value !== own && setting !== undefined && (!isBeside(key) || valueRefusal(setting, value) === null)
      );
    });
    await data.addLayerValues(
      place,
      carried.map(({ key, value }) => ({
        layer,
        systemId: layer === "system" ? systemId : null,
        titleId,
        buildId: null,
        key,
        value,
        origin: { kind: "carried", from: from.rig.name },
        measuredOn: null,
        actor: actor.name,
      })),
    );
    touch(touched);
    return { changed: carried.length };
  });
}

/** Plans a short check of values for a title: one round against the engine's defaults. */
export async function planCheck(
  actor: Actor,
  input: unknown,
  createdAt?: Date,
): Promise<{ jobId: string; trialId: string }> {
  const { rigId, engineId, titleId, buildId, keys } = checkSchema.parse(input);
  return writing(actor, async () => {
    const place = { rigId, engineId };
    const [rules, bench, open] = await data.together(
      async () => data.listHouseRules(),
      async () => data.readBench(),
      async () => data.openJobOn(place, titleId),
    );
    const houseRulesId = bench.houseRulesId ?? rules[0]?.id;
    if (!houseRulesId) throw new Problem(409, "There are no house rules.", "Add a set under Kit, House rules.");
    const jobId =
      open ??
      (await addJob(actor, {
        rigId,
        titleId,
        buildId,
        houseRulesId,
        aim: "speed",
        targetFps: null,
        strategy: "climb",
      }));
    const job = await data.findJob(jobId);
    if (!job) throw notFound("job");
    const { standing } = await loadStory(job);
    const view = await viewProfile({ rig: rigId, engine: engineId, title: titleId, build: buildId });
    const wanted = view.rows.filter(({ key }) => keys.includes(key) && isCheckable(key));
    if (wanted.length === 0)
      throw new Problem(422, "Nothing to check was named.", "Choose values of the profile.");
    const now: Settings = { ...standing.settings, ...besideValues({ conditions: standing.conditions }) };
    const begins = wanted.every(({ key, value, default: own }) => (now[key] ?? own) === value);
    const arm = (name: string, of: (row: ProfileRow) => SettingValue) => {
      const put = Object.fromEntries(wanted.map((row) => [row.key, of(row)]));
      const settings = Object.entries(put).filter(([key]) => !isBeside(key));
      return {
        name,
        settings: { ...standing.settings, ...Object.fromEntries(settings) },
        conditions: besideOf(put).conditions,
        buildId: null,
        level: null,
      };
    };
    const profile = arm("the profile's", ({ value }) => value);
    const engine = arm("the engine's default", ({ default: own }) => own);
    const { id: trialId } = await addTrial(
      actor,
      {
        jobId,
        kind: "compare",
        name: `Check: ${wanted.map(({ label }) => label).join(", ")}`.slice(0, 160),
        arms: begins ? [profile, engine] : [engine, profile],
        rounds: 1,
        cold: false,
        plan: { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] },
      },
      createdAt,
    );
    return { jobId, trialId };
  });
}

/** A profile as a file, written in UTF-8. */
export async function saveProfile(query: unknown): Promise<Uint8Array<ArrayBuffer>> {
  const asked = profileQuery.pick({ rig: true, engine: true }).parse(query);
  const place = { rigId: asked.rig, engineId: asked.engine };
  const [rig, engine, builds, told, titles] = await data.together(
    async () => data.findRig(place.rigId),
    async () => data.findEngine(place.engineId),
    async () => data.listBuilds(),
    async () => data.standingAsText(place),
    async () => data.titlesOfEngine(place),
  );
  if (!rig) throw notFound("rig");
  if (!engine) throw notFound("engine");
  const names = new Map([
    ...titles.flatMap(({ id, name, systemId, system }) => [[id, name] as const, [systemId, system] as const]),
    ...builds.map(({ id, version }) => [id, version] as const),
  ]);
  return heavy("profileFile", [{ rig: rig.name, engine: engine.name }, told, names]);
}

/** Values of a file that are taken in before whoever waits is answered. */
const valuesAtOnce = 2000;

/** Takes a profile file in: every value a hypothesis here, whatever it was where it comes from. */
export async function takeProfile(
  actor: Actor,
  input: unknown,
): Promise<{ changed: number; unknown: string[] }> {
  const { rigId, engineId, file, saw } = bodyBy(takenProfileSchema, input);
  const place = { rigId, engineId };
  return writing(actor, async (touch) => {
    await data.lockProfile(place);
    const [{ builds, held }, titles, catalogue] = await data.together(
      async () => loadPlace(place),
      async () => data.titlesOfEngine(place),
      async () => settableOn(place),
    );
    await refuseStale(place, [...new Set(file.values.map(({ key }) => key))], saw);
    const unknown = new Set<string>();
    // The first of a name where several have it.
    const named = <Row>(rows: Row[], nameOf: (row: Row) => string) =>
      new Map(rows.toReversed().map((row) => [nameOf(row), row]));
    const inSystem = (system: string, title: string) => JSON.stringify([system, title]);
    const byName = {
      titles: named(titles, ({ name }) => name),
      titlesOf: named(titles, ({ name, system }) => inSystem(system, name)),
      systems: named(titles, ({ system }) => system),
      builds: named(builds, ({ version }) => version),
      settings: named(catalogue, ({ key }) => key),
    };
    const read = ({ layer, system, title, build, key, value }: ProfileFile["values"][number]) => {
      const titleRow =
        title === null
          ? undefined
          : system === null
            ? byName.titles.get(title)
            : byName.titlesOf.get(inSystem(system, title));
      const systemId = (system !== null && byName.systems.get(system)?.systemId) || null;
      const buildId = (build !== null && byName.builds.get(build)?.id) || null;
      const setting = byName.settings.get(key);
      const missing = [
        ...(layer === "title" && !titleRow ? [`title ${title ?? "without a name"}`] : []),
        ...(layer === "system" && !systemId ? [`system ${system ?? "without a name"}`] : []),
        ...(build !== null && !buildId ? [`build ${build}`] : []),
        ...(!setting
          ? [`setting ${key}`]
          : valueRefusal(setting, value)
            ? [`value of ${key}: ${String(value)}`]
            : []),
      ];
      missing.forEach((each) => unknown.add(each));
      return missing.length > 0
        ? []
        : [
            {
              layer,
              systemId: layer === "system" ? systemId : null,
              titleId: layer === "title" ? (titleRow?.id ?? null) : null,
              buildId,
              key,
              value,
              origin: { kind: "carried" as const, from: file.rig || "a file" },
              measuredOn: null,
              actor: actor.name,
            },
          ];
    };
    // What stands there already is no hypothesis, and stays as it is; of a place that comes twice the last holds.
    const taken = new Map<string, SetValue["value"]>();
    const isOther = ({ layer, systemId, titleId, buildId, key, value }: Omit<SetValue, "id">) => {
      const place = JSON.stringify([layer, systemId, titleId, buildId, key]);
      const stands = taken.get(place) ?? held.at({ layer, systemId, titleId, buildId, key })?.value ?? null;
      taken.set(place, value);
      return stands !== value;
    };
    let changed = 0;
    for (let at = 0; at < file.values.length; at += valuesAtOnce) {
      const others = file.values
        .slice(at, at + valuesAtOnce)
        .flatMap(read)
        .filter(isOther);
      await data.addLayerValues(place, others);
      changed += others.length;
    }
    touch(touched);
    return { changed, unknown: [...unknown].slice(0, 100) };
  });
}
