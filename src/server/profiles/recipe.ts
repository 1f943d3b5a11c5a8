import type { Query } from "@/contract";
import { driverKey, inSetUp, patchKey, type NewTitle, type RigSpec, type Settings } from "@/core/kit";
import { besideOf, isBeside } from "@/core/profile";
import { makeRecipe, type Recipe } from "@/core/recipe";
import type { EngineDetail, TitleDetail } from "@/core/records";
import * as data from "@/data";
import { notFound } from "@/server/problem";
import { viewProfile } from "./viewProfile";
import { viewJob } from "@/server/jobs/viewJob";

/** A patch with the version it fits and what it breaks. */
const patchWords = ({ name, fps, fitsVersion, sideEffects }: NewTitle["patches"][number]) =>
  [`${name}${fps === null ? "" : `: ${fps} fps`}`, fitsVersion && `fits version ${fitsVersion}`, sideEffects]
    .filter(Boolean)
    .join("; ");

/** The build, the driver and the patches that are used, with where each came from. */
function usedOf(
  engine: EngineDetail,
  version: string,
  title: TitleDetail | null,
  { drivers = [] }: RigSpec,
  values: Settings,
): { name: string; link?: string; sha256?: string }[] {
  const build = engine.builds.find((each) => each.version === version);
  const driver = drivers.find((each) => each.version === values[driverKey]);
  return [
    ...(build ? [{ ...build, name: `${engine.name} ${version}` }] : []),
    ...(driver ? [{ ...driver, name: `Driver ${driver.version}` }] : []),
    ...(title?.patches.filter(({ name }) => values[patchKey(name)] === true) ?? []),
  ];
}

/** What somebody else needs to set a job's title up the same way. */
export async function viewRecipe(id: string): Promise<Recipe> {
  const view = await viewJob(id);
  const { job, standing } = view;
  // Only a run that was made under what is told says what others may expect of it.
  const tellingId = job.closing?.confirmationRunId ?? view.tellingRunId;
  const telling = view.runs.find(({ id: runId }) => runId === tellingId);
  const [title, builds, rig, run, marks] = await data.together(
    async () => data.findTitle(job.titleId),
    async () => data.listBuilds(),
    async () => data.findRig(job.rigId),
    async () => (telling ? data.findRun(telling.id) : null),
    async () => (telling ? data.listMarks(telling.id) : []),
  );
  const build = builds.find((each) => each.id === standing.buildId);
  const engine = build ? await data.findEngine(build.engineId) : null;
  // As it was tuned: the rig may have changed since.
  const revision = run ? await data.findRevision(run.rigRevisionId) : null;
  if (!title || !rig || !build || !engine) throw notFound("job");
  const conditions = { ...telling?.conditions, ...view.holds.conditions };
  const drivers = await data.ratesByDriver({
    rigId: job.rigId,
    titleId: job.titleId,
    buildId: standing.buildId,
    settings: standing.settings,
    powerMode: conditions.powerMode ?? null,
    clocks: conditions.clocks ?? null,
  });
  const spec = revision?.spec ?? rig.spec;
  return makeRecipe({
    title: { name: job.title, system: job.system, region: title.region, nativeFps: job.nativeFps },
    spec: inSetUp(spec, conditions.setUp) ?? spec,
    drivers,
    revision: revision?.number ?? rig.revision,
    engine: { name: build.engine, build: build.version, branch: build.branch, configFiles: engine.configFiles },
    catalogue: view.catalogue,
    overrides: view.overrides,
    conditions,
    targetFps: standing.targetFps ?? job.nativeFps,
    preflight: (telling?.preflight ?? []).filter(({ ticked }) => ticked).map(({ label }) => label),
    patches: title.patches.map(patchWords),
    copy: title.copy,
    used: usedOf(
      engine,
      build.version,
      title,
      spec,
      Object.fromEntries(view.overrides.flatMap(({ key, to }) => (to === null ? [] : [[key, to]]))),
    ),
    run:
      telling && run?.summary
        ? {
            grade: telling.verdict.grade,
            overruled: telling.overruled ?? null,
            averageFps: telling.summary.averageFps,
            segments: run.summary.segments,
            marks,
          }
        : null,
    crashes: view.runs.filter(({ crashed }) => crashed).length,
    hours: view.runs.reduce((sum, { summary }) => sum + summary.durationMs, 0) / 3_600_000,
    faults: view.faults,
  });
}

/** What a profile says, for somebody else; what it comes to isn't measured by it. */
export async function viewProfileRecipe(query: Query<"viewProfileRecipe">): Promise<Recipe> {
  const view = await viewProfile(query);
  const [rig, title, engine] = await data.together(
    async () => data.findRig(view.rig.id),
    async () => (view.titleId ? data.findTitle(view.titleId) : null),
    async () => data.findEngine(view.engine.id),
  );
  if (!rig) throw notFound("rig");
  const build = view.builds.find(({ id }) => id === view.buildId);
  const system = view.systems.find(({ id }) => id === view.systemId)?.name ?? "";
  const beside = besideOf(
    Object.fromEntries(view.rows.flatMap(({ key, from, value }) => (from === null ? [] : [[key, value]]))),
  );
  return makeRecipe({
    title: {
      name: title?.name ?? `Every title of ${system}`,
      system,
      region: title?.region ?? "",
      nativeFps: title?.nativeFps ?? null,
    },
    spec: rig.spec,
    revision: rig.revision,
    engine: {
      name: view.engine.name,
      build: build?.version ?? "",
      branch: build?.branch ?? "",
      configFiles: view.engine.configFiles,
    },
    catalogue: [...view.catalogue, ...view.beside],
    overrides: view.rows
      .filter(({ key, from, value, default: own }) => from !== null && value !== own && !isBeside(key))
      .map(({ key, default: from, value: to, confirmations }) => {
        const proving = confirmations.at(-1);
        return { key, from, to, trial: proving?.number ?? null, proof: proving?.proof ?? null };
      }),
    conditions: beside.conditions,
    targetFps: beside.targetFps ?? title?.nativeFps ?? null,
    preflight: [],
    patches: title ? title.patches.map(patchWords) : [],
    copy: title?.copy,
    used: engine
      ? usedOf(
          engine,
          build?.version ?? "",
          title,
          rig.spec,
          Object.fromEntries(view.rows.map(({ key, value }) => [key, value])),
        )
      : [],
    run: null,
    crashes: 0,
    hours: 0,
    faults: [],
  });
}
