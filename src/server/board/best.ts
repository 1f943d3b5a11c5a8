import { group } from "d3-array";
import type { Output, Query } from "@/contract";
import { bestOf, type ComparedTrial, type Way } from "@/core/best";
import { driverKey } from "@/core/kit";
import type { BuildRow, RigRow } from "@/core/records";
import * as data from "@/data";

/** A compared trial in the core's terms; pairs of a campaign name their arms by its places. */
function comparedOf(row: data.ComparedRow, builds: ReadonlyMap<string, BuildRow>): ComparedTrial {
  const { arms, before, places, pairs, driver, buildId: own, ...of } = row;
  const local = (place: number) => (places === null ? place : places.indexOf(place));
  return {
    ...of,
    pairs: pairs.map(({ a, b, decision }) => ({ a: local(a), b: local(b), decision })),
    arms: arms.map(({ settings, conditions, buildId }) => {
      const build = builds.get(buildId ?? own);
      const under = { ...before, ...conditions };
      const chosen = settings[driverKey];
      return {
        engine: build?.engine ?? "",
        build: build?.version ?? "",
        driver: typeof chosen === "string" ? chosen : driver,
        powerMode: under.powerMode ?? null,
        settings,
        conditions: under,
      };
    }),
  };
}

/** What could have been compared on a rig, and wasn't. */
function notRun(
  way: Way,
  names: ReadonlySet<string>,
  { spec }: RigRow,
  systemId: string,
  builds: BuildRow[],
): string[] {
  const all =
    way === "engine"
      ? builds.filter(({ systemIds }) => systemIds.includes(systemId)).map(({ engine }) => engine)
      : way === "driver"
        ? [spec.driver.version, ...(spec.drivers ?? []).map(({ version }) => version)]
        : spec.powerModes.map(({ name }) => name);
  return [...new Set(all)].filter((name) => name !== "" && !names.has(name));
}

/** Which engine, driver or power mode is best by system on every rig, and with what a title holds on the least watts. */
export async function viewBest({ way }: Query<"viewBest">): Promise<Output<"viewBest">> {
  const [rows, least, builds, rigs, systems] = await data.together(
    data.comparedTrials,
    data.leastWatts,
    data.listBuilds,
    data.listRigs,
    data.listSystems,
  );
  const byId = new Map(builds.map((build) => [build.id, build]));
  const trials = rows.map((row) => comparedOf(row, byId));
  const at = <Row extends { systemId: string; rigId: string }>(
    all: readonly Row[],
    systemId: string,
    rigId: string,
  ) => all.filter((row) => row.systemId === systemId && row.rigId === rigId);
  const places = systems.flatMap((system) => rigs.map((rig) => ({ system, rig })));
  return {
    way,
    best: places.flatMap(({ system, rig }) => {
      const found = bestOf(at(trials, system.id, rig.id), way);
      if (found.length === 0) return [];
      const names = new Set(found.map(({ name }) => name));
      return [
        {
          systemId: system.id,
          system: system.name,
          rigId: rig.id,
          rig: rig.name,
          rows: found,
          notRun: notRun(way, names, rig, system.id, builds),
        },
      ];
    }),
    watts: places.flatMap(({ system, rig }) => {
      const own = at(least, system.id, rig.id);
      const named = group(own, ({ engine, powerMode }) => [powerMode, engine].filter(Boolean).join(" with "));
      return [...named].map(([name, titles]) => ({
        systemId: system.id,
        system: system.name,
        rigId: rig.id,
        rig: rig.name,
        name,
        meanWatts: titles.reduce((sum, { watts }) => sum + watts, 0) / titles.length,
        titles: titles.map(({ title, jobId, runId, watts }) => ({ title, jobId, runId, watts })),
      }));
    }),
  };
}
