"use client";
import dynamic from "next/dynamic";
import { useEffect, useRef, useState } from "react";
import type { MeasuringRules } from "@/core/metrics";
import type { ThreadRun } from "@/contract";
import type { ChannelRole } from "@/core/trace";
import { BandChart, ChartFrame, type ChartData, Button, Keys, say, useWidth, type BandSeries } from "@/ui";
import { lanes } from "./lanes";
import { stretchIn, stretchText, useAddress } from "./useAddress";
import { useTraces, type FirstTrace, type TraceViewState } from "./useTraces";

const colours = ["var(--series-a)", "var(--series-b)"] as const;
const dashes = [undefined, "5 3"] as const;
const axisWidth = 44;
/** A wide screen has room for a higher chart, and for what else there is to see of the frames. */
const roomyWidth = 1000;
const heights = { usual: 280, roomy: 380, apart: 190 };

/** Loaded when a stretch is selected. */
const PartFigures = dynamic(async () => (await import("./PartFigures")).PartFigures, { ssr: false });
/** Loaded when it is opened. */
const Spread = dynamic(async () => (await import("./Spread")).Spread, { ssr: false });

/** Frame time of a run, or of one over another, with what the device did below on the same axis. */
export function TracePanel({
  run,
  over,
  rules,
  firstTrace = null,
}: {
  run: ThreadRun;
  over: ThreadRun | null;
  rules: MeasuringRules;
  /** What the page brought along of a run, drawn until the trace itself is there. */
  firstTrace?: FirstTrace | null;
}) {
  const { params, put } = useAddress();
  const [measure, width] = useWidth();
  const [allOfIt, setAllOfIt] = useState(false);
  const [spreadAsked, setSpread] = useState<boolean | null>(null);
  const view = stretchIn(params.get("view"));
  const selection = stretchIn(params.get("part"));
  const plot = Math.max(0, width - axisWidth);
  const roomy = width >= roomyWidth;
  const spread = spreadAsked ?? roomy;
  const spreadPart = useRef<HTMLDetailsElement>(null);
  /** How often the key has opened it: then it is scrolled to, which an opening of its own isn't. */
  const [openedByKey, setOpenedByKey] = useState(0);
  useEffect(() => {
    if (openedByKey > 0) spreadPart.current?.scrollIntoView({ block: "nearest" });
  }, [openedByKey]);
  const turnSpread = () => {
    setSpread(!spread);
    if (!spread) setOpenedByKey(openedByKey + 1);
  };
  /** The runs drawn below one another, on one time axis, instead of over one another. */
  const apart = over !== null && params.get("apart") === "yes";
  const setApart = () => put({ apart: apart ? null : "yes" });
  const traces = useTraces(run, over, rules, view, selection, plot, firstTrace);
  const end = Math.max(traces.facts?.durationMs ?? 0, traces.overFacts?.durationMs ?? 0);
  const range: [number, number] = view ?? [0, end || 1];
  const setView = (from: number, to: number) => {
    const span = Math.min(end, Math.max(20, to - from));
    const start = Math.min(Math.max(0, from), end - span);
    put({ view: span >= end ? null : stretchText([start, start + span]) });
  };
  const span = range[1] - range[0];
  const about = (factor: number) =>
    setView(range[0] + (span * (1 - factor)) / 2, range[1] - (span * (1 - factor)) / 2);
  const clear = () => put({ part: null, view: null });
  const zoomToPart = () => selection && put({ view: stretchText(selection), part: null });

  const targetMs = 1000 / run.yardstick.targetFps;
  const usual = Math.max(
    targetMs * 2.5,
    ...[run, over].map(
      (shown) =>
        (shown?.summary.p99FrameTimeMs ?? (shown ? 1000 / Math.max(1, shown.summary.averageFps) : 0)) * 1.3,
    ),
  );
  const most = Math.max(
    usual,
    ...[run, over].map((shown) => (allOfIt ? (shown?.summary.maxFrameTimeMs ?? 0) * 1.05 : 0)),
  );
  const series = (
    pick: (columns: NonNullable<TraceViewState["columns"]>) => BandSeries["band"] | undefined,
  ): BandSeries[] =>
    [traces.columns, traces.overColumns].flatMap((columns, index) => {
      const band = columns && pick(columns);
      return band
        ? [
            {
              name: index === 0 ? "A" : "B",
              band,
              colour: colours[index] ?? "var(--series-a)",
              dash: dashes[index],
            },
          ]
        : [];
    });
  const laneSeries = (roles: ChannelRole[]) =>
    series(({ channels }) => channels.find(({ role }) => roles.includes(role))?.columns);
  /** What is drawn, a row a column of pixels: frame times, then the mean of every lane. */
  const figuresDrawn = (): ChartData => {
    const drawn = series(({ frames }) => frames);
    const below = lanes.flatMap(({ name, unit, roles }) =>
      laneSeries(roles).map((each) => ({ ...each, name: `${each.name} ${name.toLowerCase()} (${unit})` })),
    );
    const count = drawn[0]?.band.mean.length ?? 0;
    const cell = (of: ArrayLike<number>, at: number) => (Number.isFinite(of[at]) ? (of[at] ?? null) : null);
    return {
      columns: [
        "time (s)",
        ...drawn.flatMap(({ name }) => [`${name} shortest (ms)`, `${name} mean (ms)`, `${name} longest (ms)`]),
        ...below.map(({ name }) => name),
      ],
      rows: Array.from({ length: count }, (_, at) => [
        (range[0] + ((at + 0.5) / count) * (range[1] - range[0])) / 1000,
        ...drawn.flatMap(({ band }) => [cell(band.low, at), cell(band.mean, at), cell(band.high, at)]),
        ...below.map(({ band }) => cell(band.mean, at)),
      ]),
    };
  };
  const mostOf = (roles: ChannelRole[]) =>
    Math.max(
      1,
      ...[traces.facts, traces.overFacts].flatMap((facts) => roles.map((role) => facts?.most[role] ?? 0)),
    ) * 1.1;

  return (
    <div className="flex min-h-full flex-col gap-2 p-3">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px]">
        <Legend run={run} index={0} />
        {over && <Legend run={over} index={1} />}
        <span className="ml-auto flex gap-1">
          <Button look="quiet" hint="+" onClick={() => about(0.5)}>
            Closer
          </Button>
          <Button look="quiet" hint="-" onClick={() => about(2)} disabled={!view}>
            Wider
          </Button>
          <Button look="quiet" hint="0" onClick={clear} disabled={!view && !selection}>
            All
          </Button>
          {over && (
            <Button look="quiet" hint="I" onClick={setApart} aria-pressed={apart}>
              {apart ? "Over one another" : "Below one another"}
            </Button>
          )}
          <Button look="quiet" hint="F" onClick={() => setAllOfIt(!allOfIt)} aria-pressed={allOfIt}>
            {allOfIt ? "Usual height" : "Fit spikes"}
          </Button>
        </span>
      </header>
      {traces.problem && (
        <p role="alert" className="rounded border border-caution p-3">
          The trace can&apos;t be drawn: {traces.problem}
        </p>
      )}
      <div
        ref={measure}
        className="min-w-0"
        data-testid="trace"
        data-drawn={width > 0 && traces.columns ? "yes" : "no"}
      >
        {width > 0 && !traces.columns && !traces.problem && (
          <p className="p-8 text-center text-soft">Fetching the trace …</p>
        )}
        {width > 0 && traces.columns && (
          <>
            <p className="pl-11 text-[11px] text-soft">
              Frame time, ms; dotted:{" "}
              <span className="figure">{say.number(run.yardstick.targetFps, 2)} fps</span>
            </p>
            <ChartFrame name={`Frame time of run ${run.number}`} data={figuresDrawn}>
              {[run, ...(apart ? [over] : [])].map((shown, at) => {
                const facts = at === 0 ? traces.facts : traces.overFacts;
                const shownMs = 1000 / shown.yardstick.targetFps;
                return (
                  <div key={shown.id} className={at > 0 ? "mt-4" : undefined}>
                    <BandChart
                      unit="ms"
                      label={`Frame time of run ${shown.number}${over && !apart ? ` and run ${over.number}` : ""}`}
                      width={width}
                      height={apart ? heights.apart : roomy ? heights.roomy : heights.usual}
                      range={range}
                      values={[0, most]}
                      ticks={apart ? 4 : 6}
                      series={series(({ frames }) => frames).filter(
                        ({ name }) => !apart || name === (at === 0 ? "A" : "B"),
                      )}
                      levels={[{ value: shownMs, label: `${say.number(shown.yardstick.targetFps, 2)} fps` }]}
                      stretches={facts?.dips}
                      names={facts?.marks.map(({ label, startMs, endMs }) => ({
                        label,
                        from: startMs,
                        to: endMs,
                      }))}
                      points={facts?.hitches.map(({ at: ms, frameMs }) => ({
                        at: ms,
                        title: `hitch: ${frameMs.toFixed(0)} ms at ${say.clock(ms)}`,
                      }))}
                      selection={selection}
                      onSelect={(part) => put({ part: stretchText(part) })}
                      axis
                      formatX={(ms) => say.clock(ms)}
                    />
                  </div>
                );
              })}
            </ChartFrame>
            {lanes.map(({ name, unit, roles, most: fixed }) => {
              const shown = laneSeries(roles);
              if (shown.length === 0) return null;
              return (
                <div key={name} className="mt-1">
                  <p className="pl-11 text-[11px] text-soft">
                    {name}, {unit}
                  </p>
                  <BandChart
                    unit={unit}
                    formatX={(ms) => say.clock(ms)}
                    label={name}
                    width={width}
                    height={44}
                    range={range}
                    values={[0, fixed ?? mostOf(roles)]}
                    ticks={2}
                    series={shown}
                  />
                </div>
              );
            })}
          </>
        )}
      </div>
      {selection ? (
        <PartFigures
          selection={selection}
          figures={traces.figures}
          over={traces.overFigures}
          onZoom={zoomToPart}
          onClear={() => put({ part: null })}
        />
      ) : (
        <p className="text-[12px] text-soft">
          Drag over the trace, or mark its ends with the space bar, to see the figures of a stretch. Triangles
          are hitches, the bar along the foot is time below target.
        </p>
      )}
      <details ref={spreadPart} open={spread} onToggle={(event) => setSpread(event.currentTarget.open)}>
        <summary className="min-h-7 cursor-pointer text-[13px] text-soft">
          How the frame times are spread
        </summary>
        {spread && (
          <div className="min-h-60">
            <Spread runs={over ? [run, over] : [run]} />
          </div>
        )}
      </details>
      <Keys
        actions={[
          { keys: "q", shown: "Q", label: "how the frame times are spread", run: turnSpread },
          ...(over ? [{ keys: "i", shown: "I", label: "runs below one another, or over", run: setApart }] : []),
          { keys: "+, =", shown: "+", label: "closer", run: () => about(0.5) },
          { keys: "-", shown: "-", label: "wider", run: () => about(2) },
          {
            keys: "left",
            shown: "←",
            label: "earlier",
            run: () => setView(range[0] - span / 4, range[1] - span / 4),
          },
          {
            keys: "right",
            shown: "→",
            label: "later",
            run: () => setView(range[0] + span / 4, range[1] + span / 4),
          },
          { keys: "z", shown: "Z", label: "zoom to the selected stretch", run: () => zoomToPart() },
          { keys: "0, escape", shown: "0", label: "the whole trace, nothing selected", run: clear },
          { keys: "f", shown: "F", label: "fit spikes, or the usual height", run: () => setAllOfIt(!allOfIt) },
        ]}
      />
    </div>
  );
}

function Legend({ run, index }: { run: ThreadRun; index: 0 | 1 }) {
  return (
    <span className="inline-flex min-w-0 items-center gap-2">
      <svg width="26" height="8" aria-hidden>
        <line
          x1="0"
          x2="26"
          y1="4"
          y2="4"
          stroke={colours[index]}
          strokeWidth="2.5"
          strokeDasharray={dashes[index]}
        />
      </svg>
      <span className="truncate">
        <b>{index === 0 ? "A" : "B"}</b> run {run.number}
        {run.label && `, ${run.label}`}
      </span>
    </span>
  );
}
