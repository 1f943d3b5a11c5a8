import dynamic from "next/dynamic";
import type { ReactNode } from "react";
import type { FaultRow, JobRow } from "@/core/records";
import type { ThreadRun } from "@/contract";
import type { NextStep } from "@/core/advise";
import { sameSettings } from "@/core/kit";
import { lowMethods, type LowMethod } from "@/core/metrics";
import { overruledWords, words } from "@/core/words";
import { Explained, NamedFigure, say, When, Link } from "@/ui";
import { Reasons } from "@/views/verdict/Reasons";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

/** Loaded where a run names places. */
const Places = dynamic(async () => (await import("./Places")).Places);
const Stills = dynamic(async () => (await import("./Stills")).Stills);
const Crashes = dynamic(async () => (await import("./Crashes")).Crashes);

const lowNames = {
  worstTime: "1 % low, worst time",
  worstMean: "1 % low, worst mean",
  percentile: "1 % low, percentile",
} as const satisfies Record<LowMethod, string>;

/** How far long and short frames take turns, by their autocorrelation at lag 1. */
const turnsWords = (lag1: number | null) =>
  lag1 === null ? "–" : lag1 < -0.5 ? "mostly" : lag1 < -0.25 ? "partly" : "hardly";

/** What a run says: the verdict with its reasons, the figures, what to do next. */
export function ReadingPanel({
  job,
  run,
  runs,
  faults,
  next,
  latest,
  children,
}: {
  job: JobRow;
  run: ThreadRun;
  runs: ThreadRun[];
  faults: FaultRow[];
  next: NextStep;
  latest: boolean;
  children: ReactNode;
}) {
  const { summary, verdict } = run;
  const { lows } = summary;
  const speed = summary.reportedSpeedPercent ?? (summary.tied ? summary.speedPercent : null);
  const like = runs.filter((each) => sameSettings(each.settings, run.settings));
  const shownFirst = [job.rules.lowMethod, ...lowMethods.filter((method) => method !== job.rules.lowMethod)];
  return (
    <div className="space-y-5 p-4" aria-label="Reading" role="region">
      <section>
        <VerdictLamp grade={verdict.grade} between={verdict.between} size={52} large ran />
        <p className="figure mt-2 text-5xl leading-none" data-testid="speed">
          {speed === null ? say.number(summary.averageFps) : say.number(speed)}
          <span className="ml-1.5 text-lg text-soft">{speed === null ? "fps" : "% speed"}</span>
        </p>
        <p className="mt-1 text-soft">
          <span className="figure">{say.number(summary.averageFps, 2)}</span> fps of{" "}
          <span className="figure">{say.number(run.yardstick.targetFps, 2)}</span>
        </p>
        {run.outdated && (
          <p className="mt-2 rounded border border-caution p-2 text-[13px]">
            An older method made these figures; they are being made anew by the present one.
          </p>
        )}
        {(run.overruled || run.fromMemory) && (
          <p className="mt-2 text-[13px]" data-testid="overruled">
            {[run.overruled && overruledWords(run.overruled), run.fromMemory && "told from memory"]
              .filter(Boolean)
              .join("; ")}
          </p>
        )}
        {verdict.remarks.map((remark) => (
          <p key={remark.code} className="mt-2 rounded border border-caution p-2 text-[13px]">
            {words(remark)}
          </p>
        ))}
        {run.source === "tally" && run.tally && (
          <p className="mt-2 text-[13px] text-soft">
            <b className="text-text">By eye</b>: {say.count(run.tally.readings, "reading")}, mean{" "}
            {say.number(run.tally.mean)} fps
            {run.tally.interval &&
              `, 95 % between ${say.number(run.tally.interval.low)} and ${say.number(run.tally.interval.high)}`}
            ; at target {say.number(100 * run.tally.atTarget.share, 0)} % of looks (
            {say.number(100 * run.tally.atTarget.low, 0)} to {say.number(100 * run.tally.atTarget.high, 0)} %).
            {(run.tally.furtherApart ?? 1) > 1 &&
              ` Readings this close follow one another: read about ${run.tally.furtherApart} times further apart, and each counts whole.`}
          </p>
        )}
        <div className="mt-3">
          <Reasons verdict={verdict} />
        </div>
      </section>
      {run.places && <Places run={run} />}
      {faults.length > 0 && (
        <section className="border-t border-line pt-4" aria-label="Faults">
          <h2 className="flex items-baseline justify-between text-[13px] font-semibold text-soft">
            Faults
            <Link
              href={`/log?${new URLSearchParams({ search: job.title })}`}
              className="font-normal underline decoration-line underline-offset-4 hover:decoration-text"
            >
              this title in the log
            </Link>
          </h2>
          <ul className="mt-1 space-y-1 text-[13px]">
            {faults.map((fault) => (
              <li key={fault.id}>
                <b>{fault.severity}</b>, {fault.kind}
                {fault.scene && ` at ${fault.scene}`}
                {fault.atMs !== null && `, ${say.clock(fault.atMs)}`}
                {fault.note && `: ${fault.note}`}
                {fault.workaround && <span className="block text-soft">What helps: {fault.workaround}</span>}
              </li>
            ))}
          </ul>
        </section>
      )}
      {latest && (
        <section className="border-t border-line pt-4">
          <h2 className="text-[13px] font-semibold text-soft">
            <Explained by="Next">Next</Explained>
          </h2>
          <p className="mt-1">{words(next.sentence)}</p>
        </section>
      )}
      {children}
      <section className="border-t border-line pt-4">
        <h2 className="mb-2 text-[13px] font-semibold text-soft">Figures</h2>
        <dl className="grid grid-cols-2 gap-x-3 gap-y-2.5">
          <NamedFigure name="Full-speed time" value={say.number(summary.fullSpeedTimePercent)} unit="%" />
          <NamedFigure
            name="Dips"
            value={summary.dips ? String(summary.dips.count) : "–"}
            note={
              summary.dips && summary.dips.count > 0
                ? `longest ${say.clock(summary.dips.longestMs)}`
                : undefined
            }
          />
          {lows &&
            shownFirst.map((method) => (
              <NamedFigure
                key={method}
                name={lowNames[method]}
                value={say.number(lows[method].one)}
                unit="fps"
              />
            ))}
          {summary.form === "frames" && (
            <>
              <NamedFigure name="Median frame" value={say.number(summary.medianFrameTimeMs, 2)} unit="ms" />
              <NamedFigure name="99 % frame" value={say.number(summary.p99FrameTimeMs, 2)} unit="ms" />
              <NamedFigure name="Longest frame" value={say.number(summary.maxFrameTimeMs)} unit="ms" />
              <NamedFigure
                name="Hitches"
                value={say.number(summary.hitches?.perMinute)}
                unit="/min"
                note={
                  summary.hitches
                    ? `${summary.hitches.count} in ${(summary.durationMs / 1000).toFixed(0)} s`
                    : undefined
                }
              />
              <NamedFigure
                name="Lost to hitches"
                value={say.number(summary.hitches?.lostMsPerMinute, 0)}
                unit="ms/min"
              />
              <NamedFigure name="Freezes" value={String(summary.freezes)} />
              {summary.pacing && (
                <NamedFigure
                  name="Frames of usual length"
                  value={say.number(100 * summary.pacing.cadenceShare)}
                  unit="% of frames"
                />
              )}
              {summary.pacing && (
                <NamedFigure
                  name="Long and short in turn"
                  value={turnsWords(summary.pacing.lag1)}
                  note={say.number(summary.pacing.lag1, 2)}
                />
              )}
            </>
          )}
          {summary.channels.watts && (
            <NamedFigure name="Power" value={say.number(summary.channels.watts.mean)} unit="W mean" />
          )}
          {summary.channels.temperature && (
            <NamedFigure name="Hottest" value={say.number(summary.channels.temperature.max)} unit="°C" />
          )}
          {summary.channels.dropouts && (
            <NamedFigure
              name="Sound dropouts"
              value={say.number(summary.channels.dropouts.max / (summary.durationMs / 60_000))}
              unit="a minute"
              note={`${say.number(summary.channels.dropouts.max, 0)} in all`}
            />
          )}
          <NamedFigure
            name={summary.form === "frames" ? "Frames" : "Readings"}
            value={summary.frames.toLocaleString("en-GB")}
            note={`in ${say.clock(summary.durationMs)}`}
          />
          {run.skippedRows > 0 && <NamedFigure name="Rows left out" value={String(run.skippedRows)} />}
        </dl>
        {like.some(({ crashed }) => crashed) && <Crashes runs={like} />}
        {summary.coldScenes && summary.coldScenes.cold > 0 && (
          <p className="mt-3 text-[13px]">
            Cold cache: {summary.coldScenes.cold} of {summary.coldScenes.revisited} scenes lost at least three
            times as much on the first visit as later.
          </p>
        )}
      </section>
      {run.source === "capture" && <Stills runId={run.id} />}
      <section className="border-t border-line pt-4 text-[13px] text-soft">
        <h2 className="font-semibold">
          <Explained by="Conditions">Made under</Explained>
        </h2>
        <p className="mt-1">
          {[
            run.conditions.powerMode,
            run.conditions.clocks,
            run.conditions.display,
            run.conditions.pluggedIn === null ? null : run.conditions.pluggedIn ? "plugged in" : "on battery",
            run.conditions.docked ? "docked" : "handheld",
            run.conditions.cooler && "cooler on",
            run.conditions.roomC !== null && `${run.conditions.roomC} °C room`,
            run.conditions.capturePath,
            run.conditions.soundPath && `sound to ${run.conditions.soundPath}`,
          ]
            .filter(Boolean)
            .join(", ")}
        </p>
        {run.preflight.length > 0 && (
          <p className="mt-1">
            Pre-flight: {run.preflight.filter(({ ticked }) => ticked).length} of {run.preflight.length} ticked .
          </p>
        )}
        <p className="mt-1">
          <When at={run.madeAt} />
          {run.fileName && `, from ${run.fileName}`}
        </p>
      </section>
    </div>
  );
}
