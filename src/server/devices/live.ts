import { mostPieces } from "@/contract/devices";
import type { Output } from "@/contract";
import * as data from "@/data";
import { notFound } from "@/server/problem";

export async function viewLive(): Promise<Output<"viewLive">> {
  const [runs, devices] = await Promise.all([data.listGrowing(), data.listDevices()]);
  return { runs, devices };
}

/** What was appended to a run since a moment; a piece that came at that very moment is there once more. */
export async function readPieces(id: string, since: string | null): Promise<Output<"readPieces">> {
  const place = await data.placeOfRun(id);
  const run = place && !place.deleted ? await data.findRun(id) : null;
  if (!run) throw notFound("run");
  const pieces = await data.listPieces(id, since, mostPieces);
  return {
    open: run.state === "open",
    pieces: pieces.map(({ role, sequence, values }) => ({ role, sequence, values })),
    until: pieces.at(-1)?.at ?? since,
    more: pieces.length === mostPieces,
  };
}
