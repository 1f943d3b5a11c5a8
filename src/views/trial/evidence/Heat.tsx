"use client";
import { armAt } from "@/core/trial";
import { heatAt, type LimitOutlook } from "@/core/sweep";
import type { HeatReading } from "@/core/trial";
import { Panel, Plot, TableFrame, TableHead, say, type PlotLine } from "@/ui";
import { cell, pointsOf, strokeOf, upTo, type EvidenceProps } from "./parts";

/** When a limit is reached, in a cell. */
function outlookWords(outlook: LimitOutlook | null): string {
  if (!outlook) return "–";
  if (outlook.state === "never") return "never at this load";
  return outlook.state === "reached"
    ? `${(outlook.seconds / 60).toFixed(1)} min`
    : `not known yet: run ${outlook.runMinutes} min`;
}

/** Temperature over time with the fitted curve, burst against sustained, cool-down. */
export function Heat({ reading: { rows, limitC }, view: { trial } }: EvidenceProps<HeatReading>) {
  if (rows.length === 0) return null;
  const span = Math.max(...rows.map(({ points }) => points.seconds.at(-1) ?? 0));
  const lines: PlotLine[] = rows.flatMap((row, index) => {
    const fitted = row.fit;
    return [
      {
        name: `run ${row.run}`,
        ...strokeOf(index),
        points: pointsOf(
          row.points.seconds.map((second) => second / 60),
          row.points.celsius,
        ),
      },
      ...(fitted && row.throttles.length === 0
        ? [
            {
              name: `fit ${row.run}`,
              colour: "var(--soft)",
              width: 1,
              dash: "1 3",
              points: Array.from({ length: 40 }, (_, k) => {
                const s = (span * k) / 39;
                return { x: s / 60, y: heatAt(fitted, s) };
              }),
            },
          ]
        : []),
    ];
  });
  return (
    <Panel title="Heat over time">
      <Plot
        label="Temperature over time"
        x={{ name: "minutes", range: [0, span / 60], format: (value) => value.toFixed(0) }}
        y={{
          name: "°C",
          range: [20, Math.ceil(upTo([limitC ?? 0, ...rows.map(({ hottestC }) => hottestC)], 1.06) / 10) * 10],
        }}
        lines={lines}
        levels={limitC === null ? [] : [{ value: limitC, label: `limit ${limitC} °C`, caution: true }]}
        stretches={rows.flatMap(({ throttles }) =>
          throttles.map(({ startMs, endMs }) => ({ from: startMs / 60_000, to: endMs / 60_000 })),
        )}
      />
      <p className="mt-1 text-[12px] text-soft">
        Shaded: clocks taken back by heat. Finely dotted: the fitted curve.
      </p>
      <TableFrame name="Heat of each run">
        <table aria-label="Heat of each run" className="mt-2 w-full text-left text-[13px]">
          <TableHead
            tight
            names={[
              "Line",
              "Run",
              "Settles at, 95 %",
              "Time constant",
              "To the limit",
              "Throttles",
              "Burst",
              "Sustained",
              "Cool-down",
            ]}
          />
          <tbody className="divide-y divide-line">
            {rows.map((row, index) => (
              <tr key={row.run}>
                <td className={cell}>
                  <svg width="26" height="8" aria-hidden>
                    <line
                      x1="0"
                      x2="26"
                      y1="4"
                      y2="4"
                      stroke={strokeOf(index).colour}
                      strokeWidth="2.5"
                      strokeDasharray={strokeOf(index).dash}
                    />
                  </svg>
                </td>
                <td className={cell}>
                  {row.run}, {armAt(trial, row.arm).name}
                </td>
                <td className={`${cell} figure`}>
                  {row.throttles.length > 0
                    ? "held by throttling"
                    : row.fit
                      ? `${row.fit.settledC.toFixed(1)} °C (${row.fit.settledInterval.low.toFixed(1)} to ${row.fit.settledInterval.high.toFixed(1)})`
                      : "–"}
                </td>
                <td className={`${cell} figure`}>
                  {row.fit && row.throttles.length === 0 ? `${row.fit.settleSeconds.toFixed(0)} s` : "–"}
                </td>
                <td className={`${cell} figure`}>
                  {limitC === null
                    ? "–"
                    : row.throttles[0]
                      ? `${(row.throttles[0].startMs / 60_000).toFixed(1)} min`
                      : outlookWords(row.outlook)}
                </td>
                <td className={`${cell} figure`}>
                  {row.throttles.length === 0
                    ? "no"
                    : `to ${(100 * Math.min(...row.throttles.map(({ deepest }) => deepest))).toFixed(0)} %`}
                </td>
                <td className={`${cell} figure`}>{say.number(row.burst)} fps</td>
                <td className={`${cell} figure`}>{say.number(row.sustained)} fps</td>
                <td className={`${cell} figure`}>
                  {row.coolDownMinutes === null ? "–" : `${Math.ceil(row.coolDownMinutes)} min`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </TableFrame>
      <p className="mt-2 text-[12px] text-caution">
        Passive metal cases can burn. Keep to the maker&apos;s limit, the fan clear of fingers and dust, and let
        a hot battery be.
      </p>
    </Panel>
  );
}
