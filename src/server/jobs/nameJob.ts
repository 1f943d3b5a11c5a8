import type { Body } from "@/contract";
import { commonShapes, plainRig, plainTitle, type Conditions, type Settings } from "@/core/kit";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { openOrAdd } from "./addJob";
import { conditionsFor, usualRules } from "./benchUse";
import { Problem, notFound } from "@/server/problem";
import { viewNewRun } from "@/server/runs/viewNewRun";
import { writing } from "@/server/writing";

type Asked = Body<"nameJob">;

/** A job that was opened by names, and what its first run is made under. */
interface Named {
  id: string;
  conditions: Conditions;
  settings: Settings;
}

/** What something is called until somebody names it. */
const unnamed = (what: string) => `${what} without a name`;

/**
 * Opens a job by the names of what it is made from, or goes on with the one that is open of the same. What is
 * on the shelf under its name is taken as it stands; what isn't is made with what is known of it, and says
 * nothing more.
 */
export async function nameJob(actor: Actor, named: Body<"nameJob">): Promise<Named> {
  const id = await writing(actor, async (touch) => {
    const houseRulesId = named.houseRulesId ?? (await usualRules());
    const rigId =
      (await data.idOfNamed("rig", named.rig)) ??
      (await data.addRig({ name: named.rig, spec: plainRig(named.refreshHz) }));
    const { id: titleId, systemId } = await titleOf(named);
    const buildId = await buildOf(named, systemId);
    touch(...["rigs", "systems", "titles", "engines"].map((id) => ({ kind: "kit" as const, id })));
    // A further log of the same goes on with the job that is open, and makes no second one.
    return openOrAdd(actor, {
      rigId,
      titleId,
      buildId,
      houseRulesId,
      aim: "speed",
      targetFps: named.targetFps,
      strategy: "climb",
      beginsFrom: "profile",
    });
  });
  const { bench, settings } = await viewNewRun(id);
  if (!bench.rig) throw notFound("rig");
  return { id, conditions: bench.conditions ?? (await conditionsFor(bench.rig)), settings };
}

/** The title and its system; a title that one system alone has needs no system named. */
async function titleOf(named: Asked): Promise<{ id: string; systemId: string }> {
  const { title, system, nativeFps, tied } = named;
  const systemId = system === "" ? null : await systemNamed(system, nativeFps);
  if (title !== "") {
    const found = await data.titlesNamed(title, systemId);
    if (found.length > 1)
      throw new Problem(422, `Several systems have a title called “${title}”.`, "Name the system too.", {
        system: "Which of them?",
      });
    if (found[0]) return found[0];
  }
  const of = systemId ?? (await systemNamed(unnamed("System"), nativeFps));
  const name = title === "" ? await freeTitle(of) : title;
  const id = await data.addTitle(plainTitle({ systemId: of, name, nativeFps, tied }));
  return { id, systemId: of };
}

/** A name for a title that has none yet, not taken by another one without. */
async function freeTitle(systemId: string): Promise<string> {
  for (let k = 1; ; k++) {
    const name = k === 1 ? unnamed("Title") : `${unnamed("Title")} ${k}`;
    if ((await data.titlesNamed(name, systemId)).length === 0) return name;
  }
}

async function systemNamed(name: string, hz: number): Promise<string> {
  const shape = commonShapes.find((each) => each.name === name);
  return (
    (await data.idOfNamed("system", name)) ??
    data.addSystem(shape ?? { name, screens: [], rates: [{ region: "", hz }], note: "" })
  );
}

async function buildOf({ engine, build }: Asked, systemId: string): Promise<string> {
  const name = engine === "" ? unnamed("Engine") : engine;
  const engineId =
    (await data.idOfNamed("engine", name)) ??
    (
      await data.addEngine({
        name,
        systemIds: [systemId],
        notes: "",
        builds: [],
        backEnds: [],
        configFiles: [],
        catalogue: [],
      })
    ).id;
  await data.linkEngine(engineId, systemId);
  return data.buildNamed(engineId, build);
}
