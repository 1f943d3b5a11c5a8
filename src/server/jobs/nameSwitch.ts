import type { Body, Output } from "@/contract";
import {
  choiceOf,
  keyOf,
  newEngineSchema,
  newTitleSchema,
  ownKey,
  plainSwitch,
  rigSpecSchema,
} from "@/core/kit";
import type { z } from "@/core/schema";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { viewEngine, viewTitle, viewRig } from "@/server/kit/changeKit";
import { Problem } from "@/server/problem";
import { editing, writing } from "@/server/writing";
import { lockOpenJob } from "./lockJob";

/**
 * Lists something that can be set where it is missed: with the engine, the device or the title of a job. The first
 * value is the one in force, so that what was run stays what it is; a device keeps its revision.
 * @throws Problem 409 where something of that name is listed already, 422 for a key that has its own field
 */
export async function nameSwitch(
  actor: Actor,
  id: string,
  { owner, label, values }: Body<"nameSwitch">,
): Promise<Output<"nameSwitch">> {
  return writing(actor, async (touch) => {
    const job = await lockOpenJob(id);
    const key = keyOf(label);
    const usual = values[0] ?? "";
    const listed = await data.catalogueAt(job);
    const full = owner === "engine" ? key : ownKey(owner, key);
    if (listed.some((setting) => setting.key.toLowerCase() === full.toLowerCase() || setting.label === label))
      throw new Problem(409, `“${label}” is listed already.`, "Choose it among what varies.", {
        label: "Listed already.",
      });
    const own = plainSwitch(key, { label, values, default: usual });
    if (owner === "engine") {
      await editing("engines", job.engineId, "engine", null);
      const engine = await viewEngine(job.engineId);
      const setting = choiceOf(key, label, values, usual);
      await data.putEngine(
        job.engineId,
        taken(newEngineSchema, { ...engine, catalogue: [...engine.catalogue, setting] }),
      );
    } else if (owner === "title") {
      await editing("titles", job.titleId, "title", null);
      const title = await viewTitle(job.titleId);
      await data.putTitle(
        job.titleId,
        taken(newTitleSchema, { ...title, options: [...(title.options ?? []), own] }),
      );
    } else {
      await editing("rigs", job.rigId, "rig", null);
      const { spec } = await viewRig(job.rigId);
      await data.listSwitches(
        job.rigId,
        taken(rigSpecSchema, { ...spec, switches: [...(spec.switches ?? []), own] }),
      );
    }
    touch({ kind: "kit", id: `${owner}s` }, { kind: "job", id });
    return { key: full };
  });
}

/** What a schema takes. @throws Problem 422 with what it says against the new switch */
function taken<Thing>(schema: z.ZodType<Thing>, thing: unknown): Thing {
  const { data: held, error } = schema.safeParse(thing);
  if (held !== undefined) return held;
  const fix = error?.issues[0]?.message ?? "Choose another name.";
  throw new Problem(422, "It can't be listed under this name.", fix, { label: fix });
}
