"use client";
import type { MemoryReading } from "@/core/trial";
import { Panel, Plot, say, type PlotLine } from "@/ui";
import { pointsOf, strokeOf, upTo, type EvidenceProps } from "./parts";

type Growth = NonNullable<MemoryReading["rows"][number]["growth"]>;

/** When the wall is reached at a slope, and between what. */
function wallAfter({ minutesToLimit, minutesLow, minutesHigh }: Growth): string {
  if (minutesToLimit === null || minutesLow === null || minutesHigh === null) return "";
  return `, the wall after ${minutesToLimit.toFixed(1)} min (${minutesLow.toFixed(1)} to ${minutesHigh.toFixed(1)})`;
}

/** Memory over time with its slope to the wall. */
export function Memory({ reading: { rows, limitMb, others, crashes } }: EvidenceProps<MemoryReading>) {
  if (rows.length === 0) return null;
  const reach = Math.max(
    ...rows.map(({ points, growth }) =>
      Math.max(
        points.minutes.at(-1) ?? 0,
        Math.min(growth?.minutesToLimit ?? 0, 4 * (points.minutes.at(-1) ?? 0)),
      ),
    ),
  );
  const lines: PlotLine[] = rows.flatMap(({ growth, ...row }, index) => [
    {
      name: `run ${row.run}`,
      ...strokeOf(index),
      width: 2,
      points: pointsOf(row.points.minutes, row.points.megabytes),
    },
    ...(growth?.grows
      ? [growth.low, growth.high].map((slope, k) => ({
          name: `slope ${row.run} ${k}`,
          colour: "var(--soft)",
          dash: "2 4",
          width: 1,
          points: [
            { x: 0, y: growth.startMb },
            { x: reach, y: growth.startMb + slope * reach },
          ],
        }))
      : []),
  ]);
  return (
    <Panel title="Memory over time">
      <Plot
        label="Memory over time, with its slope to the wall"
        x={{ name: "minutes", range: [0, reach * 1.05], format: (value) => value.toFixed(0) }}
        y={{ name: "MB", range: [0, upTo([limitMb ?? 0, ...rows.flatMap(({ points }) => points.megabytes)])] }}
        lines={lines}
        levels={
          limitMb === null
            ? []
            : [{ value: limitMb, label: `the wall, ${limitMb.toFixed(0)} MB`, caution: true }]
        }
        uprights={rows.flatMap(({ diedAfterMinutes, run }) =>
          diedAfterMinutes === null ? [] : [{ value: diedAfterMinutes, label: `run ${run} died` }],
        )}
      />
      <ul className="mt-2 list-disc space-y-1 pl-5 text-[13px]">
        {rows.map(({ run, growth }) => (
          <li key={run}>
            Run {run}:{" "}
            {growth
              ? `${growth.mbPerMinute.toFixed(1)} MB a minute (95 %: ${growth.low.toFixed(1)} to ${growth.high.toFixed(1)})${wallAfter(growth)}`
              : "too short to tell"}
            .
          </li>
        ))}
        {others.map(
          ({ gigabytes, minutes }) =>
            minutes !== null && (
              <li key={gigabytes}>
                A device with {gigabytes} GB would last about {minutes.toFixed(0)} min.
              </li>
            ),
        )}
        {crashes && (
          <li>
            {say.count(crashes.crashes, "crash", "crashes")} in {crashes.hours.toFixed(2)} h:{" "}
            {crashes.crashes === 0
              ? `more than ${crashes.ruledOutAbove.toFixed(1)} an hour are ruled out (95 %)`
              : `${crashes.perHour.toFixed(2)} an hour (95 %: ${crashes.low.toFixed(2)} to ${crashes.high.toFixed(2)})`}
            .
          </li>
        )}
      </ul>
    </Panel>
  );
}
