"use client";
import { useQuery } from "@tanstack/react-query";
import type { ThreadRun } from "@/contract";
import { Plot, say } from "@/ui";
import { startTraceReader } from "@/workers";

const colours = ["var(--series-a)", "var(--series-b)"];
const dashes = [undefined, "5 3"];

/** How the frame times of a run, or of two over one another, are spread: shares of frames, and what they stay under. */
export function Spread({ runs }: { runs: ThreadRun[] }) {
  const ids = runs.map(({ id }) => id);
  const { data, error } = useQuery({
    queryKey: ["spread", ids],
    staleTime: Infinity,
    queryFn: async () => {
      const reader = startTraceReader();
      try {
        return await reader.call.spreads(ids);
      } finally {
        reader.end();
      }
    },
  });
  if (error) return <p className="text-[13px] text-caution">{error.message}</p>;
  if (!data) return <p className="text-[13px] text-soft">Sorting frames …</p>;
  const drawn = runs.flatMap((run, at) => {
    const spread = data[at];
    return spread
      ? [{ run, spread, name: at === 0 ? "A" : "B", colour: colours[at] ?? "", dash: dashes[at] }]
      : [];
  });
  if (drawn.length === 0)
    return <p className="text-[13px] text-soft">Readings of a counter have no frames to be spread.</p>;
  const histogram = drawn.flatMap(({ spread }) => spread.histogram);
  const ms = histogram.map((bin) => bin.ms);
  return (
    <div className="grid gap-4 lg:grid-cols-2">
      <Plot
        label="Frame times, share of frames"
        x={{ name: "ms", range: [Math.min(...ms), Math.max(...ms)] }}
        y={{ name: "% of frames", range: [0, 100 * Math.max(...histogram.map(({ share }) => share))] }}
        height={180}
        lines={drawn.map(({ spread, name, colour, dash }) => ({
          name,
          colour,
          dash,
          points: spread.histogram.map(({ ms, share }) => ({ x: ms, y: 100 * share })),
        }))}
      />
      <Plot
        label="Frame time that a share of frames stays under"
        x={{ name: "% of frames", range: [0, 100] }}
        y={{ name: "ms", range: [0, Math.max(...drawn.map(({ spread }) => spread.curve.at(-2)?.ms ?? 0))] }}
        height={180}
        lines={drawn.map(({ spread, name, colour, dash }) => ({
          name,
          colour,
          dash,
          points: spread.curve.slice(0, -1).map(({ share, ms }) => ({ x: 100 * share, y: ms })),
        }))}
      />
      <p className="text-[12px] text-soft lg:col-span-2">
        {drawn
          .map(
            ({ run, spread, name }) =>
              `${name}, run ${run.number}: half of its frames under ${say.number(spread.curve.find(({ share }) => share === 0.5)?.ms)} ms, 99 % under ${say.number(spread.curve.find(({ share }) => share === 0.99)?.ms)} ms`,
          )
          .join("; ")}
        .
      </p>
    </div>
  );
}
