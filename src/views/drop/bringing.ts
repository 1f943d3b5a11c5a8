import type { Output } from "@/contract";
import type { IncomingKind } from "@/core/incoming";

export type Places = Output<"viewIncoming">;

export const kindWords: Record<IncomingKind, string> = {
  log: "a log of frame times or readings",
  video: "a video of the screen",
  config: "an engine's config file",
  profile: "a profile",
  recipe: "a recipe",
  publication: "what somebody published",
  catalogue: "a catalogue of settings",
  job: "a whole job",
  unknown: "nothing that is known here",
};

/** Engines by how many of a file's keys are settings of theirs, the most first; one whose file has this name leads. */
export function enginesForConfig(
  engines: Places["engines"],
  name: string,
  keys: readonly string[],
): { id: string; name: string; known: number }[] {
  const inFile = new Set(keys.map((key) => key.toLowerCase()));
  const isNamed = (files: string[]) => files.some((file) => file.toLowerCase() === name.toLowerCase());
  return engines
    .map((engine) => ({
      id: engine.id,
      name: engine.name,
      named: isNamed(engine.files),
      known: engine.keys.filter((key) => inFile.has(key.toLowerCase())).length,
    }))
    .sort(
      (a, b) => Number(b.named) - Number(a.named) || b.known - a.known || a.name.localeCompare(b.name, "en"),
    )
    .map(({ named: _named, ...engine }) => engine);
}

/** What is called so, whatever its capitals. */
export const calledSo = <Thing extends { name: string }>(things: readonly Thing[], name: string) =>
  things.find((thing) => thing.name.toLowerCase() === name.trim().toLowerCase());
