import type { Query, ProfileCheck, ProfileView } from "@/contract";
import { setImmediate as breath } from "node:timers/promises";
import { group } from "d3-array";
import { isOwn, type Setting } from "@/core/kit";
import {
  besideSettings,
  decisionsOf,
  droppable,
  HeldValues,
  isCheckable,
  liftable,
  profileRows,
  type Confirmation,
  type ProfileRow,
  type RigNow,
  type SetValue,
} from "@/core/profile";
import { isAgainst } from "@/core/trial";
import type { ProfileListRow, RigRow } from "@/core/records";
import * as data from "@/data";
import { leftBy, keysTriedIn } from "./landing";
import { notFound } from "@/server/problem";

type Place = data.ProfilePlace;

/** What a profile is made of. @throws Problem 404 for a rig or an engine that isn't there */
export async function loadPlace(
  place: Place,
  { until = null, titleId = null }: { until?: Date | null; titleId?: string | null } = {},
) {
  const [rig, engine, builds, catalogue, held, decided] = await data.together(
    async () => data.findRig(place.rigId),
    async () => data.findEngine(place.engineId),
    async () => data.listBuilds(),
    async () => data.catalogueAt({ ...place, titleId }),
    async () => data.standingValues(place, { until }),
    async () => data.decidedOnRig(place),
  );
  if (!rig) throw notFound("rig");
  if (!engine) throw notFound("engine");
  const own = builds.filter(({ engineId }) => engineId === place.engineId);
  return { rig, engine, builds: own, catalogue, held, confirmations: confirmationsOf(decided) };
}

/** What decided trials held against something else, and kept. */
function confirmationsOf(trials: data.DecidedOnRig[]): Confirmation[] {
  return trials.flatMap((trial) => {
    const [decision] = decisionsOf([trial]);
    const kept = leftBy(trial);
    const held = Object.fromEntries(
      keysTriedIn(trial).flatMap((key) => {
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
  const nameOf = (place: Place) => `${place.rigId} ${place.engineId}`;
  for (const { rigId, engineId, values } of rows)
    if (values > 0) catalogues.set(nameOf({ rigId, engineId }), await data.catalogueAt({ rigId, engineId }));
  const standing = new Map(whole.standing.map(({ held, ...place }) => [nameOf(place), held]));
  const [decided, titles] = [group(whole.decided, nameOf), group(whole.titles, nameOf)];
  const counted: ProfileListRow[] = [];
  for (const row of rows) {
    const name = nameOf(row);
    const rig = rigs.find(({ id }) => id === row.rigId);
    const lastTitleId = decided.get(name)?.at(-1)?.titleId ?? null;
    if (row.values === 0 || !rig) {
      counted.push({ ...row, toConfirm: 0, lastTitleId });
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
      [...(catalogues.get(name) ?? []), ...besideSettings(rig.spec, null)],
      standing.get(name) ?? new HeldValues([]),
      now,
      confirmationsOf(decided.get(name) ?? []),
    );
    counted.push({
      ...row,
      toConfirm: checks.reduce((sum, { rows: open }) => sum + open.length, 0),
      lastTitleId,
    });
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
/** Titles that weren't tuned on a rig and go with its profile, at most: others are found by typing. */
const mostOtherTitles = 50;

/** A profile in its layers. What was changed last is of the same moment: it may be taken back. */
export const viewProfile = async (query: Query<"viewProfile">): Promise<ProfileView> =>
  data.atOneMoment(async () => profileAsked(query));

async function profileAsked(asked: Query<"viewProfile">): Promise<ProfileView> {
  const place = { rigId: asked.rig, engineId: asked.engine };
  const until = isNaN(Date.parse(asked.asOf)) ? null : new Date(asked.asOf);
  const [{ rig, engine, builds, catalogue: settings, held, confirmations }, titles, rigs, history, saw] =
    await data.together(
      async () => loadPlace(place, { until, titleId: asked.title || null }),
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
  const ofEngine = settings.filter(({ key }) => !isOwn(key));
  const catalogue = [...settings, ...besideSettings(rig.spec, title?.nativeFps ?? null)];
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
  const cell = title ? await data.cellOf(title.id, place) : null;
  const others = titles.filter(({ id, worked }) => !worked && id !== title?.id);
  const leftOut = new Set(others.slice(mostOtherTitles));
  const shownTitles = titles.filter((each) => !leftOut.has(each));
  return {
    rig: { id: rig.id, name: rig.name, revision: rig.revision },
    rigs: rigs.map(({ id, name }) => ({ id, name })),
    engine: { id: engine.id, name: engine.name, configFiles: engine.configFiles },
    builds: builds.map(({ id, version, branch }) => ({ id, version, branch })),
    buildId: now.buildId,
    systems,
    systemId,
    titles: shownTitles.map(({ id, name, systemId: system, worked }) => ({
      id,
      name,
      systemId: system,
      worked,
    })),
    moreTitles: titles.length - shownTitles.length,
    titleId: title?.id ?? null,
    light: cell && {
      jobId: cell.jobId,
      runId: cell.runId,
      grade: cell.grade,
      between: cell.between,
      overruled: cell.overruled,
    },
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
