"use client";
import { TriangleAlert } from "lucide-react";
import { pairEffects } from "@/core/trial";
import { changed, said, words } from "@/core/words";
import type { NoiseFloor } from "@/core/compare";
import { changesBetween, labelsIn, type Setting } from "@/core/kit";
import type { JobRow } from "@/core/records";
import type { ThreadRun } from "@/contract";
import { Button, say } from "@/ui";
import { EffectList, IntervalLine, decisionNames, furtherWords } from "./Effects";
import { useComparison } from "./useComparison";

/** Warm, whole runs with the settings and conditions of one: the arm it stands for. */
export const runsLike = (runs: ThreadRun[], like: ThreadRun) =>
  runs.filter(
    (run) =>
      changesBetween(run.settings, like.settings).length === 0 &&
      run.cacheState === like.cacheState &&
      !run.crashed &&
      (["powerMode", "clocks", "cooler", "pluggedIn"] as const).every(
        (key) => run.conditions?.[key] === like.conditions?.[key],
      ),
  );

export const noiseWords = (noise: NoiseFloor, measured: boolean) =>
  measured
    ? `Equal runs of this rig differ by about ${(100 * noise.sd).toFixed(1)} %, known from ${say.count(noise.freedom, "repeat")}.`
    : `Too few repeats on this rig for a noise floor of its own: about ${(100 * noise.sd).toFixed(1)} % is believed, and not surely.`;

/** Was it real: all runs like A against all like B, with intervals, worked out in a worker. */
export function ComparePanel({
  job,
  runs,
  run,
  over,
  noise,
  measured,
  catalogue,
}: {
  job: JobRow;
  runs: ThreadRun[];
  run: ThreadRun;
  over: ThreadRun;
  noise: NoiseFloor;
  measured: boolean;
  catalogue: Setting[];
}) {
  const labelOf = labelsIn(catalogue);
  const armNew = runsLike(runs, run),
    armOld = runsLike(runs, over);
  const same = armOld.some(({ id }) => id === run.id);
  const { state, stop, start, stopped } = useComparison(
    same ? null : [armOld, armNew].map((arm) => arm.map(({ id }) => id)),
    {
      yardstick: run.yardstick,
      rules: job.rules.measuring,
      marginPercent: job.rules.marginPercent,
      noise,
      places: [armOld, armNew].map((arm) => arm.map(({ number }) => number)),
    },
  );
  if (same) return null;
  const changes = [
    ...changesBetween(over.settings, run.settings).map(({ key, from, to }) =>
      changed({ label: labelOf(key), from, to }),
    ),
    ...(["powerMode", "clocks"] as const)
      .filter((key) => over.conditions[key] !== run.conditions[key])
      .map((key) => `${over.conditions[key]} → ${run.conditions[key]}`),
  ].join(", ");
  const cold = run.cold === over.cold ? null : words(said("drift.caches", { warmOverCold: over.cold }));
  const effect = state.step === "made" ? pairEffects(state.outcome)[0] : null;
  return (
    <section aria-label="Comparison" className="mx-3 mb-3 rounded-md bg-panel p-3">
      <header className="flex items-baseline gap-3 text-[13px]">
        <h2 className="font-semibold">Was it real?</h2>
        <span className="truncate text-soft">
          {changes}; {say.count(armNew.length, "run")} against {say.count(armOld.length, "run")}
        </span>
      </header>
      {cold && (
        <p className="mt-2 flex gap-2 text-[13px] text-caution">
          <TriangleAlert size={15} className="mt-0.5 shrink-0" aria-hidden />
          {cold}
        </p>
      )}
      {state.step === "working" && <Working onStop={stop} />}
      {stopped && (
        <Button className="mt-2" onClick={start}>
          Compare
        </Button>
      )}
      {state.step === "failed" && (
        <p role="alert" className="mt-2">
          {state.problem}
        </p>
      )}
      {effect && state.step === "made" && (
        <div className="mt-2 text-[13px]">
          <p className="text-[16px] font-semibold">
            {decisionNames[effect.decision]}
            {effect.decision === "undecided" && (
              <span className="ml-2 text-[13px] font-normal">{furtherWords(effect)}</span>
            )}
          </p>
          <IntervalLine effect={effect} marginPercent={job.rules.marginPercent} />
          <div className="mt-2">
            <EffectList effect={effect} />
          </div>
          <ul className="mt-2 list-disc pl-4 text-[12px] text-soft">
            <li>{noiseWords(noise, measured)}</li>
            {state.outcome.pairs
              .slice(0, 1)
              .flatMap(({ comparison }) => comparison.notes)
              .map((note) => (
                <li key={note.code}>{words(note)}</li>
              ))}
          </ul>
        </div>
      )}
    </section>
  );
}

function Working({ onStop }: { onStop: () => void }) {
  return (
    <div role="status" className="mt-2 flex items-center gap-3">
      <progress aria-label="Comparing" className="h-2 flex-1 accent-(--lit)" />
      <Button look="quiet" onClick={onStop}>
        Stop
      </Button>
    </div>
  );
}
