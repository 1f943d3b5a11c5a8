import type { Body, Output, Query } from "@/contract";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { Problem, notFound } from "@/server/problem";
import { mended } from "@/server/runs/mended";
import { writing } from "@/server/writing";
import { queueWork } from "@/server/system/workQueue";

type Merge = Body<"merge">;

const tables = { title: "titles", system: "systems", rig: "rigs", engine: "engines" } as const;

async function refuseMerge({ what, from, into }: Merge): Promise<void> {
  if (from === into) throw new Problem(409, "That is one and the same.", "Choose two of them.");
  const found = {
    title: async (id: string) => data.findTitle(id),
    system: async (id: string) => (await data.listSystems()).find((each) => each.id === id),
    rig: async (id: string) => data.findRig(id),
    engine: async (id: string) => data.findEngine(id),
  }[what];
  for (const id of [from, into]) if (!(await found(id))) throw notFound(what);
}

/** Systems and engines by name. */
export async function viewKitNames(): Promise<Output<"viewKitNames">> {
  const [systems, engines] = await data.together(
    async () => data.listSystems(),
    async () => data.enginesByKeys(),
  );
  const named = ({ id, name }: { id: string; name: string }) => ({ id, name });
  return { systems: systems.map(named), engines: engines.map(named) };
}

/** What a merge would move. */
export async function viewMerge(asked: Query<"viewMerge">): Promise<Output<"viewMerge">> {
  await refuseMerge(asked);
  return data.mergeFacts(asked.what, asked.from, asked.into);
}

/** Merges one thing of the kit into another; what rests on it is judged anew. One undoing takes all of it back. */
export async function merge(actor: Actor, asked: Merge): Promise<void> {
  const { what, from, into } = asked;
  return writing(actor, async (touch) => {
    await refuseMerge(asked);
    for (const id of [from, into].sort()) await data.lockRow(tables[what], id);
    const { against } = await data.mergeFacts(what, from, into);
    const [first] = against;
    if (first)
      throw new Problem(
        409,
        `Both systems have a title “${first}”${against.length > 1 ? ` and ${against.length - 1} more alike` : ""}.`,
        "Merge those titles first.",
      );
    await data.mergeInto(what, from, into);
    await mended(actor, await data.changesSoFar(), touch);
    if (what === "rig" || what === "engine") await queueWork("keep-holds", { batch: 0 });
    touch({ kind: "kit", id: tables[what] }, { kind: "profile", id: "" });
  });
}
