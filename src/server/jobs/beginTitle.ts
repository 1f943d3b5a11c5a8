import type { Body } from "@/contract";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { Problem, notFound } from "@/server/problem";
import { writing } from "@/server/writing";
import { openOrAdd } from "./addJob";
import { usualRules } from "./benchUse";

/**
 * A title's job with everything chosen: on the rig on the bench, with the engine that was used last for its system
 * there, or the one that runs it; by the bench's house rules, from the profile. Goes on with the job that is open.
 * @throws Problem 409 without a rig on the bench or an engine for the title
 */
export async function beginTitle(
  actor: Actor,
  { titleId, rigId: wanted }: Body<"beginTitle">,
): Promise<string> {
  return writing(actor, async () => {
    const [bench, title] = await data.together(
      async () => data.readBench(),
      async () => data.findTitle(titleId),
    );
    if (!title) throw notFound("title");
    const rigId = wanted ?? bench.rigId;
    if (rigId === null)
      throw new Problem(409, "No rig lies on the bench.", "Put one there, or open the job by hand.");
    const usual = await data.usualBuild(rigId, title.systemId);
    if (!usual)
      throw new Problem(
        409,
        "No engine on the shelf runs this title.",
        "Add one in Kit, or open the job by hand.",
      );
    return openOrAdd(actor, {
      rigId,
      titleId,
      buildId: usual.buildId,
      houseRulesId: await usualRules(),
      aim: "speed",
      targetFps: null,
      strategy: "climb",
      beginsFrom: "profile",
    });
  });
}
