"use client";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import type { FiguresSoFar } from "@/core/metrics";
import type { LiveRun } from "@/core/records";
import { Button, Explained, Keys, Link, NamedFigure, Panel, say, toast } from "@/ui";
import { LiveMarks } from "./LiveMarks";
import { channelNote } from "./channelNote";
import { useSeconds, useWatched } from "./useWatched";

/** Loaded once there is something to draw. */
const LiveCharts = dynamic(async () => (await import("./LiveCharts")).LiveCharts, { ssr: false });

/** A stream that brought nothing for so long is said to have stopped, ms. */
const stillMs = 10_000;
/** A run shorter than this is given no light, ms: see the verdict. */
const judgedFromMs = 10_000;

/** A run while it happens: its rate to be read from two metres, what it was made of, and the keys to mark and end it. */
export function LiveRunPanel({ run }: { run: LiveRun }) {
  const router = useRouter();
  const watching = useWatched(run);
  const seconds = useSeconds();
  const [ending, setEnding] = useState(false);
  const now = watching?.now;
  const stillFor = watching && seconds > watching.cameAt ? seconds - watching.cameAt : 0;
  const refused = (title: string, fix: string) => void toast.error(title, { description: fix });
  const end = async () => {
    setEnding(true);
    const sent = await call("finishRun", { id: run.runId, body: { state: "whole" } });
    setEnding(false);
    if (!sent.ok) return refused(sent.refusal.title, sent.refusal.fix);
    toast(`Run ${run.number} has ended.`, {
      action: { label: "Look at it", onClick: () => router.push(`/jobs/${run.jobId}?run=${run.runId}`) },
    });
    router.refresh();
  };
  const length = now?.whole.durationMs ?? 0;
  return (
    <Panel>
      <header className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h2 className="text-[15px] font-semibold [overflow-wrap:anywhere]" dir="auto">
          <Link
            href={`/jobs/${run.jobId}?run=${run.runId}`}
            className="underline decoration-line underline-offset-4"
          >
            {run.title}
          </Link>
        </h2>
        <p className="text-[13px] text-soft" dir="auto">
          run {run.number}
          {run.label && `, ${run.label}`}, {run.engine} on {run.rig}
        </p>
        <p className="figure ml-auto text-[13px] text-soft" role="status">
          {now === undefined
            ? "Nothing has come yet."
            : stillFor >= stillMs
              ? `Nothing came for ${say.lasting(stillFor)}.`
              : [say.clock(length), ...channelNote(now.newest)].join(", ")}
        </p>
      </header>
      <div className="mt-2 grid gap-x-6 gap-y-2 sm:grid-cols-[auto_1fr]">
        <div>
          <p className="text-[12px] text-soft">
            <Explained by="Rate">Rate</Explained>, last {say.number(Math.min(30, length / 1000), 0)} s
          </p>
          <p
            className="figure text-[clamp(64px,9vw,128px)] leading-none whitespace-nowrap"
            data-testid="live-rate"
          >
            {say.number(now?.last.averageFps, 1)}
            <span className="ml-2 text-2xl text-soft">fps</span>
          </p>
          <p className="figure text-3xl whitespace-nowrap">
            {say.number(now?.last.averageFps == null ? null : (100 * now.last.averageFps) / run.nativeFps, 1)}
            <span className="ml-1 text-lg text-soft">% of {say.plain(run.nativeFps)} fps</span>
          </p>
        </div>
        <div className="grid content-start gap-2 max-sm:order-last">
          <SoFar title="Last 30 s" figures={now?.last} />
          <SoFar title="The whole run so far" figures={now?.whole} />
          <p className="text-[12px] text-soft">
            {length < judgedFromMs
              ? `Long enough for a light in ${say.number((judgedFromMs - length) / 1000, 0)} s.`
              : "Its light and its reasons come when it ends, from the whole of it."}
          </p>
        </div>
        <div className="col-span-full">
          <LiveMarks run={run} lengthMs={length} cameAt={watching?.cameAt ?? null}>
            <Button look="lit" hint="X" onClick={() => void end()} disabled={ending || now === undefined}>
              End the run
            </Button>
          </LiveMarks>
        </div>
      </div>
      {now && <LiveCharts run={run} now={now} />}
      <Keys actions={[{ keys: "x", shown: "X", label: "end the run", run: () => void end() }]} />
    </Panel>
  );
}

function SoFar({ title, figures }: { title: string; figures: FiguresSoFar | undefined }) {
  const share = figures?.fullSpeedShare;
  return (
    <section aria-label={title}>
      <h3 className="text-[12px] text-soft">{title}</h3>
      <dl className="grid grid-cols-4 gap-3 max-sm:grid-cols-2">
        <NamedFigure name="Average" value={say.number(figures?.averageFps, 1)} unit="fps" />
        <NamedFigure
          name="Full-speed time"
          value={say.number(share == null ? null : 100 * share, 1)}
          unit="%"
        />
        <NamedFigure name="Hitches" value={figures?.hitches == null ? "–" : String(figures.hitches)} />
        <NamedFigure name="Longest frame" value={say.number(figures?.longestMs, 0)} unit="ms" />
      </dl>
    </section>
  );
}
