"use client";
import type { PowerReading } from "@/core/trial";
import { words } from "@/core/words";
import { Panel, Plot, TableFrame, TableHead, say } from "@/ui";
import { cell, upTo, type EvidenceProps } from "./parts";

/** Rate against watts, the modes in a table, hours on the battery. */
export function Power({
  reading: { sweep, hours, elsewhereWatts },
  view: { targetFps: target, limits },
}: EvidenceProps<PowerReading>) {
  const { rows, sweetSpot } = sweep;
  const [slowest] = sweep.slowerWithMore;
  const spotWatts = sweetSpot === null ? null : (rows[sweetSpot]?.watts ?? null);
  if (rows.length === 0) return null;
  const known = rows.flatMap((row, index) => (row.watts === null ? [] : [{ ...row, watts: row.watts, index }]));
  const front = known.filter(({ onFront }) => onFront).sort((a, b) => a.watts - b.watts);
  const dots = (lit: boolean) =>
    known
      .filter(({ index }) => (index === sweetSpot) === lit)
      .map(({ watts, fps, fpsLow, fpsHigh, mode }) => ({
        x: watts,
        y: fps,
        label: mode,
        spread: [fps - fpsLow, fpsHigh - fps] as [number, number],
      }));
  return (
    <Panel title="Rate against watts">
      {known.length > 0 && (
        <Plot
          label="Average rate against watts by power mode"
          x={{ name: "watts", range: [0, upTo(known.map(({ watts }) => watts))] }}
          y={{ name: "fps", range: [0, upTo([target, ...rows.map(({ fps }) => fps)])] }}
          lines={[
            {
              name: "front",
              colour: "var(--series-a)",
              dash: "4 3",
              points: front.map(({ watts, fps }) => ({ x: watts, y: fps })),
            },
          ]}
          dots={[
            { name: "modes", colour: "var(--series-a)", points: dots(false) },
            { name: "sweet spot", colour: "var(--series-a)", lit: true, points: dots(true) },
          ]}
          levels={[{ value: target, label: `${say.number(target, 2)} fps` }]}
        />
      )}
      <TableFrame name="Power modes">
        <table aria-label="Power modes" className="mt-2 w-full text-left text-[13px]">
          <TableHead
            tight
            names={["Mode", "Watts", "Average, 95 %", "1 % low", "fps per watt", "Battery", ""]}
          />
          <tbody className="divide-y divide-line">
            {rows.map((row, index) => (
              <tr key={row.mode} className={index === sweetSpot ? "bg-raised" : undefined}>
                <td className={cell}>{row.mode}</td>
                <td className={`${cell} figure`}>
                  {say.number(row.watts)}
                  {row.watts !== null && !row.measured && " named"} W
                </td>
                <td className={`${cell} figure`}>
                  {say.number(row.fps)} ({say.number(row.fpsLow)} to {say.number(row.fpsHigh)}) fps
                </td>
                <td className={`${cell} figure`}>{say.number(row.worstTimeLow)} fps</td>
                <td className={`${cell} figure`}>{say.number(row.fpsPerWatt, 2)}</td>
                <td className={`${cell} figure`}>
                  {hours[index] === null ? "–" : `${say.number(hours[index])} h`}
                </td>
                <td className={cell}>
                  {[
                    index === sweetSpot && (
                      <b key="spot" className="text-lit">
                        sweet spot
                      </b>
                    ),
                    row.holds && " holds",
                    !row.onFront && row.watts !== null && " another is faster on less",
                  ].filter(Boolean)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </TableFrame>
      {slowest && (
        <p className="mt-2 text-[13px]">
          {words(slowest.sentence)}{" "}
          <span className="figure text-soft">
            ({(100 * (slowest.ratio - 1)).toFixed(1)} %, 95 %: {(100 * (slowest.low - 1)).toFixed(1)} to{" "}
            {(100 * (slowest.high - 1)).toFixed(1)} %)
          </span>
        </p>
      )}
      {limits.batteryWh !== null && (
        <p className="mt-2 text-[12px] text-soft">
          Hours: {limits.batteryWh} Wh, nine tenths of it usable, over the logged watts
          {elsewhereWatts > 0
            ? ` and ${elsewhereWatts} W of screen and rest that the log leaves out${spotWatts !== null ? ` (${((100 * elsewhereWatts) / (elsewhereWatts + spotWatts)).toFixed(0)} % of what the sweet spot takes)` : ""}`
            : "; the screen and the rest are counted only as far as the log holds them"}
          .
        </p>
      )}
    </Panel>
  );
}
