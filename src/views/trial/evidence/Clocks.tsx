"use client";
import { armAt } from "@/core/trial";
import type { ClocksReading } from "@/core/trial";
import { soakFault } from "@/core/words";
import { Panel, say } from "@/ui";
import type { EvidenceProps } from "./parts";

/** The ladder, step by step, with its cautions. */
export function Clocks({
  reading: { state, rows, school },
  view: { trial, limits },
}: EvidenceProps<ClocksReading>) {
  return (
    <Panel title="The ladder">
      <ol
        className="grid items-end gap-2"
        style={{ gridTemplateColumns: `repeat(${Math.min(4, trial.arms.length)}, minmax(0, 1fr))` }}
        aria-label="Steps of the ladder"
      >
        {trial.arms.map((arm, step) => {
          const own = rows.filter((row) => row.arm === step);
          const soak = own.at(-1);
          const clean = own
            .filter(({ fault }) => fault === null)
            .reduce((sum, { minutes }) => sum + minutes, 0);
          const failed = own.find(({ fault }) => fault !== null)?.fault ?? null;
          const lit = school ? school.name === arm.name : state.lastClean === step;
          return (
            <li
              key={arm.name}
              className={`rounded-md border p-3 text-[13px] ${lit ? "border-lit" : "border-line"}`}
              style={{ minHeight: 104 + 26 * (step % 4) }}
            >
              <p className="font-semibold">{arm.name}</p>
              <p className="figure">{clean > 0 ? `${clean.toFixed(1)} min clean` : "not soaked"}</p>
              {failed && <p className="text-caution">given up: {soakFault(failed)}</p>}
              {soak && (
                <p className="figure text-soft">
                  {say.number(soak.fps)} fps sustained
                  {soak.hottestC !== null && `, ${soak.hottestC.toFixed(0)} °C`}
                  {soak.watts !== null && `, ${(soak.fps / soak.watts).toFixed(1)} fps/W`}
                </p>
              )}
            </li>
          );
        })}
      </ol>
      {state.ruledOutPerHour !== null && state.lastClean !== null && (
        <p className="mt-3 text-[13px]">
          Clean for {state.cleanMinutes.toFixed(0)} min at {armAt(trial, state.lastClean).name}: more than{" "}
          {state.ruledOutPerHour.toFixed(1)} crashes an hour are ruled out (95 %), rarer ones are not.
        </p>
      )}
      <ul className="mt-3 list-disc space-y-1 rounded-md border border-caution p-3 pl-7 text-[12px]">
        <li>
          Stop at once on a crash, a broken picture, throttling
          {limits.temperatureC === null ? "" : `, or ${limits.temperatureC} °C`}.
        </li>
        <li>
          Keep to the maker&apos;s limits, with a fan and heat sink; expect crashes and lost saves, and know
          that it can void a warranty.
        </li>
        <li>This tool plans and records. It never changes a clock or a voltage.</li>
      </ul>
    </Panel>
  );
}
