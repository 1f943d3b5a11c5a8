import type { Body } from "@/contract";
import { baselineOf } from "@/core/job";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { conditionsFor } from "./benchUse";
import { writing } from "@/server/writing";

/** Opens a job and puts it, with its rig, on the bench. */
export async function addJob(actor: Actor, input: Body<"addJob">): Promise<string> {
  const { beginsFrom, ...job } = input;
  return writing(actor, async (touch) => {
    const id = await data.addJob(job);
    if (beginsFrom === "defaults") {
      const made = await data.findJob(id);
      if (made) await data.putBaseline(id, baselineOf(made, await data.catalogueAt(made)));
    }
    const [rig, bench] = await data.together(
      async () => data.findRig(job.rigId),
      async () => data.readBench(),
    );
    const { rigId, houseRulesId } = job;
    const conditions = rig && bench.rigId !== rigId ? { conditions: await conditionsFor(rig) } : {};
    await data.putBench({ jobId: id, rigId, houseRulesId, ...conditions });
    touch({ kind: "jobs", id }, { kind: "bench", id: "" });
    return id;
  });
}

/** The open job of the same rig, title, build, house rules and target; opened where there is none. */
export async function openOrAdd(actor: Actor, job: Body<"addJob">): Promise<string> {
  const { rigId, titleId, buildId, houseRulesId, targetFps } = job;
  return (await data.openJobOf({ rigId, titleId, buildId, houseRulesId, targetFps })) ?? addJob(actor, job);
}
