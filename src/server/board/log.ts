import type { Query } from "@/contract";
import { garwood } from "@/core/stats";
import { grades } from "@/core/verdict";
import type { BuildView, CrashRow, LogView } from "@/core/records";
import * as data from "@/data";
import { notFound } from "@/server/problem";

/** What went wrong over all jobs, by words and filters. */
export async function viewLog(query: Query<"viewLog">): Promise<LogView> {
  const [{ rows, next }, filters] = await Promise.all([data.listLog(query), data.logFilters()]);
  return { rows, next, query, ...filters };
}

/** Crashes an hour of every title with a build, with the exact interval of their count (Garwood 1936). */
export async function listCrashes({ engine }: Query<"listCrashes">): Promise<{ rows: CrashRow[] }> {
  const counted = await data.crashCounts(engine);
  return {
    rows: counted.map((row) => {
      const { low, high } = garwood(row.crashes);
      const by = (count: number) => (row.hours > 0 ? count / row.hours : 0);
      return { ...row, perHour: by(row.crashes), low: by(low), high: by(high) };
    }),
  };
}

const rank = (grade: string | null) => grades.findIndex((each) => each === grade);

/** What a build fixed, what it broke, and which profiles were measured with another. */
export async function viewBuild(id: string): Promise<BuildView> {
  const builds = await data.buildsBeside(id);
  const at = builds.findIndex((build) => build.id === id);
  const build = builds[at];
  if (!build) throw notFound("build");
  const before = builds[at - 1] ?? null;
  const [fares, stale] = await Promise.all([
    data.faresOf([id, ...(before ? [before.id] : [])]),
    data.valuesStaleBy(build.engineId, id),
  ]);
  const places = [...new Set(fares.map(({ titleId, rigId }) => `${titleId} ${rigId}`))];
  const titles = places.map((place): BuildView["titles"][number] => {
    const own = fares.filter(({ titleId, rigId }) => `${titleId} ${rigId}` === place);
    const now = own.find(({ buildId }) => buildId === id),
      was = own.find(({ buildId }) => buildId === before?.id);
    const shown = now ?? was;
    if (!shown) throw new Error("A place has a fare.");
    const gone = now && was ? was.faults.filter((fault) => !now.faults.includes(fault)) : [],
      fresh = now && was ? now.faults.filter((fault) => !was.faults.includes(fault)) : [];
    const step = now && was ? rank(now.grade) - rank(was.grade) : 0;
    return {
      titleId: shown.titleId,
      title: shown.title,
      rig: shown.rig,
      jobId: shown.jobId,
      from: was?.grade ?? null,
      to: now?.grade ?? null,
      gone,
      fresh,
      change:
        !now || !was
          ? "one side only"
          : fresh.length > 0
            ? "newly broken"
            : gone.length > 0
              ? "fixed"
              : step === 0
                ? "as before"
                : step < 0
                  ? "brighter"
                  : "darker",
    };
  });
  return {
    ...build,
    before: before && { id: before.id, version: before.version },
    builds: builds.map(({ id: other, version }) => ({ id: other, version })),
    titles,
    stale,
  };
}
