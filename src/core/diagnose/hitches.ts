import type { Segment } from "@/core/metrics";
import { evidence } from "./sign";
import type { Evidence } from "./shape";
import { weights } from "./weights";

/** Whether hitches cost a stretch enough to be felt: over 4 ms in a second. */
export const isHitchy = (segment: Segment) =>
  segment.hitches > 0 && segment.lostMs > 0.004 * (segment.endMs - segment.startMs);

/** What a hitch adds to a comparison of visits: two or three fall anywhere by chance. */
const perHitch = 0.7;
/** Lost time below this is a stray frame, in ms. */
const strayMs = 60;

/**
 * Signs of what makes stretches hitch: what the first visit lost against later ones, and what entering costs
 * every time.
 */
export function hitchEvidence(segments: Segment[], cacheState: "warm" | "cold" | "unknown"): Evidence[] {
  const made: Evidence[] = [];
  const byLabel = new Map<string, Segment[]>();
  for (const segment of segments)
    if (segment.label !== "") byLabel.set(segment.label, [...(byLabel.get(segment.label) ?? []), segment]);
  const visited = [...byLabel.values()].filter((visits) => visits.length > 1);
  const lostFirst = visited.reduce((sum, [first]) => sum + (first?.lostMs ?? 0), 0);
  const later = visited
    .map(([, ...rest]) => rest.reduce((sum, { lostMs }) => sum + lostMs, 0) / rest.length)
    .reduce((sum, ms) => sum + ms, 0);
  const laterEntry = visited
    .map(([, ...rest]) => rest.reduce((sum, { entryLostMs }) => sum + entryLostMs, 0) / rest.length)
    .reduce((sum, ms) => sum + ms, 0);
  // The log's own beginning is no entering of a scene: anything may still be loading.
  const beginning = segments[0]?.entryLostMs ?? 0;
  const all = segments.reduce((sum, { lostMs }) => sum + lostMs, 0) - beginning,
    entry = segments.reduce((sum, { entryLostMs }) => sum + entryLostMs, 0) - beginning;
  if (visited.length > 0) {
    if (lostFirst >= strayMs && lostFirst >= 3 * later) {
      // Two or three hitches may fall on first visits by chance; many don't.
      const inFirst = visited.reduce((sum, [first]) => sum + (first?.hitches ?? 0), 0);
      const figures = { firstMs: lostFirst, laterMs: later };
      made.push(
        evidence(
          "shaders",
          "sign.firstVisits",
          figures,
          Math.min(weights["sign.firstVisits"].weight, perHitch * inFirst),
        ),
      );
    } else if (later >= strayMs && laterEntry >= 0.6 * later) {
      const inLater = visited.reduce(
        (sum, [, ...rest]) => sum + rest.reduce((count, { hitches }) => count + hitches, 0),
        0,
      );
      const figures = { ms: laterEntry / visited.length };
      made.push(
        evidence(
          "storage",
          "sign.entryEveryTime",
          figures,
          Math.min(weights["sign.entryEveryTime"].weight, perHitch * inLater),
        ),
      );
    }
    return made;
  }
  if (all < strayMs) return made;
  if (cacheState === "cold") {
    // Effects compile where something new is seen, mostly on entering; another program's hitches come anywhere.
    const onEntry = entry / all;
    made.push(
      evidence("shaders", "sign.coldHitches", { ms: all, onEntry }, 0.4 + 2.4 * Math.min(1, onEntry / 0.6)),
    );
  } else if (entry >= 0.6 * all && segments.filter(({ label }) => label !== "").length > 1) {
    const warm = cacheState === "warm";
    made.push(
      evidence("storage", "sign.entryOnce", { entryMs: entry, allMs: all, warm }, warm ? undefined : 1),
    );
    if (!warm) made.push(evidence("shaders", "sign.nothingTwice", undefined));
  }
  return made;
}
