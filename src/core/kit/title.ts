import type { NewTitle } from "./titleSchema";

/** A title of which its system, name, rate and tie are known, and nothing else. */
export const plainTitle = (known: Pick<NewTitle, "systemId" | "name" | "nativeFps" | "tied">): NewTitle => ({
  ...known,
  region: "",
  hardness: "typical",
  scenes: [],
  memoryNeededGb: null,
  patches: [],
  notes: "",
});
