import { arranged, fitted, planScales } from "@/core/resolution";
import type { ClocksFit, HeatFitted, MemoryFit, PowerFit, ResolutionFit, SweepFit } from "@/core/sweep";
import { targetOf } from "@/core/verdict";
import type { TrialView } from "@/core/records";
import { Button, Keys, Panel, Plot, say, type PlotLine } from "@/ui";
import { ScreenDrawing } from "@/views/kit/ScreenDrawing";

const colours = ["var(--series-a)", "var(--series-b)", "var(--series-c)", "var(--series-d)"];
const dashes = [undefined, "5 3", "2 3", "8 3 2 3"];
const upTo = (values: number[], room = 1.12) => Math.max(1, ...values.filter(Number.isFinite)) * room;
const cell = "px-2 py-1.5";
const head = (names: string[]) => (
  <thead className="text-[12px] text-soft">
    <tr>
      {names.map((name) => (
        <th key={name} className="px-2 py-1 font-normal">
          {name}
        </th>
      ))}
    </tr>
  </thead>
);

/** The evidence of a sweep, below its recommendation. */
export function FitPanel({
  fit,
  view,
  onAdd,
}: {
  fit: SweepFit;
  view: TrialView;
  onAdd?: (scale: number) => void;
}) {
  return (
    <>
      {fit.kind === "resolution" && <Resolution fit={fit} view={view} onAdd={onAdd} />}
      {fit.kind === "power" && <Power fit={fit} view={view} />}
      {fit.kind === "heat" && <Heat fit={fit} view={view} />}
      {fit.kind === "clocks" && <Clocks fit={fit} view={view} />}
      {fit.kind === "memory" && <Memory fit={fit} />}
      {fit.missing.length > 0 && (
        <ul
          aria-label="What is missing"
          className="list-disc rounded-md border border-line p-2 pl-6 text-[13px] text-soft"
        >
          {[...new Set(fit.missing)].map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
    </>
  );
}

function Resolution({
  fit: { law, levels, next, arm },
  view: { job, trial, runs, display, screens },
  onAdd,
}: {
  fit: ResolutionFit;
  view: TrialView;
  onAdd?: (scale: number) => void;
}) {
  const target = runs.at(-1)?.yardstick.targetFps ?? targetOf(job);
  if (levels.length === 0) return null;
  const reach = Math.max(...levels.map(({ scale }) => scale)) + 1;
  const predicted = law?.predicted.filter(({ scale }) => scale <= reach) ?? [];
  const native = screens.reduce((sum, { width, height }) => sum + width * height, 0) / 1e6;
  const curve = law
    ? Array.from({ length: 60 }, (_, k) => {
        const x = 0.5 + ((reach - 0.5) * k) / 59;
        return {
          x,
          y: Math.max(law.floorSeen ? law.floorMs : 0, law.interceptMs + law.msPerMegapixel * native * x * x),
        };
      })
    : [];
  const kept = arm === null ? null : trial.arms[arm].level;
  const plan = screens.length > 0 ? planScales(screens, display, "contain", "stacked") : null;
  const whole = screens.length > 0 ? arranged(screens, "stacked") : null;
  const lines = whole ? screens[0].height / whole.places[0].height : 1;
  const shown =
    whole && fitted({ width: lines * whole.aspect, height: lines, aspect: whole.aspect }, display, "contain");
  return (
    <Panel
      title="Frame time by scale"
      aside={
        law && (
          <span className="figure text-[12px] text-soft">
            {law.floorSeen ? `floor ${law.floorMs.toFixed(1)} ms, then ` : ""}
            {law.interceptMs.toFixed(1)} ms + {law.msPerMegapixel.toFixed(1)} ms per million pixels (95 %:{" "}
            {law.msPerMegapixelInterval[0].toFixed(1)} to {law.msPerMegapixelInterval[1].toFixed(1)})
          </span>
        )
      }
    >
      <Plot
        label="Frame time by internal scale, with the fitted law"
        x={{
          name: "internal scale",
          range: [0.5, reach + 0.5],
          ticks: Array.from({ length: Math.floor(reach) }, (_, k) => k + 1),
          format: (value) => `×${value}`,
        }}
        y={{
          name: "frame time, ms",
          range: [0, upTo([1000 / target, ...levels.map(({ p99Ms }) => p99Ms)])],
          format: (value) => value.toFixed(0),
        }}
        lines={[
          { name: "law", points: curve, colour: "var(--series-a)" },
          {
            name: "low",
            points: predicted.map(({ scale, low }) => ({ x: scale, y: low })),
            colour: "var(--series-a)",
            dash: "2 4",
            width: 1,
          },
          {
            name: "high",
            points: predicted.map(({ scale, high }) => ({ x: scale, y: high })),
            colour: "var(--series-a)",
            dash: "2 4",
            width: 1,
          },
        ]}
        dots={[
          {
            name: "usual frame",
            colour: "var(--series-a)",
            points: levels
              .filter(({ scale }) => scale !== kept)
              .map(({ scale, medianMs }) => ({ x: scale, y: medianMs })),
          },
          {
            name: "99 %",
            colour: "var(--series-b)",
            shape: "triangle",
            points: levels.map(({ scale, p99Ms }) => ({ x: scale, y: p99Ms })),
          },
          {
            name: "recommended",
            colour: "var(--series-a)",
            lit: true,
            points: levels
              .filter(({ scale }) => scale === kept)
              .map(({ scale, medianMs }) => ({ x: scale, y: medianMs })),
          },
        ]}
        levels={[{ value: 1000 / target, label: `${say.number(target, 2)} fps` }]}
      />
      <p className="mt-1 text-[12px] text-soft">
        Circles: the usual frame; triangles: the 99th percentile; dotted: where a run&apos;s usual frame should
        lie, 95 %.
      </p>
      {next && !trial.decidedAt && (
        <div className="mt-2 flex items-center gap-3 text-[14px]">
          <p>{next.sentence}</p>
          {!trial.arms.some(({ level }) => level === next.scale) && onAdd && (
            <>
              <Keys
                actions={[
                  {
                    keys: "a",
                    shown: "A",
                    label: `add ×${next.scale} to the sweep`,
                    run: () => onAdd(next.scale),
                  },
                ]}
              />
              <Button hint="A" onClick={() => onAdd(next.scale)}>
                Add ×{next.scale}
              </Button>
            </>
          )}
        </div>
      )}
      {plan && whole && shown && (
        <div className="mt-3 flex flex-wrap items-end gap-3" aria-label={`The scales on ${display.name}`}>
          {levels.map(({ scale }) => {
            const row = plan.scales.find((each) => each.scale === scale);
            if (!row) return null;
            return (
              <div key={scale} className="w-52">
                <ScreenDrawing
                  row={row}
                  display={display}
                  shown={shown}
                  places={whole.places}
                  chosen={scale === kept}
                  chosenWord={trial.decidedAt ? "kept" : "recommended"}
                  physical={null}
                />
              </div>
            );
          })}
        </div>
      )}
    </Panel>
  );
}

function Power({
  fit: { sweep, hours, elsewhereWatts },
  view: { job, runs, limits },
}: {
  fit: PowerFit;
  view: TrialView;
}) {
  const { rows, sweetSpot } = sweep;
  const target = runs.at(-1)?.yardstick.targetFps ?? targetOf(job);
  if (rows.length === 0) return null;
  const known = rows.map((row, index) => ({ ...row, index })).filter(({ watts }) => watts !== null);
  const front = known.filter(({ onFront }) => onFront).sort((a, b) => a.watts! - b.watts!);
  const dots = (lit: boolean) =>
    known
      .filter(({ index }) => (index === sweetSpot) === lit)
      .map(({ watts, fps, fpsLow, fpsHigh, mode }) => ({
        x: watts!,
        y: fps,
        label: mode,
        spread: [fps - fpsLow, fpsHigh - fps] as [number, number],
      }));
  return (
    <Panel title="Rate against watts">
      {known.length > 0 && (
        <Plot
          label="Average rate against watts by power mode"
          x={{ name: "watts", range: [0, upTo(known.map(({ watts }) => watts!))] }}
          y={{ name: "fps", range: [0, upTo([target, ...rows.map(({ fps }) => fps)])] }}
          lines={[
            {
              name: "front",
              colour: "var(--series-a)",
              dash: "4 3",
              points: front.map(({ watts, fps }) => ({ x: watts!, y: fps })),
            },
          ]}
          dots={[
            { name: "modes", colour: "var(--series-a)", points: dots(false) },
            { name: "sweet spot", colour: "var(--series-a)", lit: true, points: dots(true) },
          ]}
          levels={[{ value: target, label: `${say.number(target, 2)} fps` }]}
        />
      )}
      <table aria-label="Power modes" className="mt-2 w-full text-left text-[13px]">
        {head(["Mode", "Watts", "Average, 95 %", "1 % low", "fps per watt", "Battery", ""])}
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
      {sweep.slowerWithMore.length > 0 && (
        <p className="mt-2 text-[13px]">
          {sweep.slowerWithMore[0].words}{" "}
          <span className="figure text-soft">
            ({(100 * (sweep.slowerWithMore[0].ratio - 1)).toFixed(1)} %, 95 %:{" "}
            {(100 * (sweep.slowerWithMore[0].low - 1)).toFixed(1)} to{" "}
            {(100 * (sweep.slowerWithMore[0].high - 1)).toFixed(1)} %)
          </span>
        </p>
      )}
      {limits.batteryWh !== null && (
        <p className="mt-2 text-[12px] text-soft">
          Hours: {limits.batteryWh} Wh, nine tenths of it usable, over the logged watts
          {elsewhereWatts > 0
            ? ` and ${elsewhereWatts} W of screen and rest that the log leaves out${sweetSpot !== null && rows[sweetSpot].watts !== null ? ` (${((100 * elsewhereWatts) / (elsewhereWatts + rows[sweetSpot].watts!)).toFixed(0)} % of what the sweet spot takes)` : ""}`
            : "; the screen and the rest are counted only as far as the log holds them"}
          .
        </p>
      )}
    </Panel>
  );
}

function Heat({ fit: { rows, limitC }, view: { trial } }: { fit: HeatFitted; view: TrialView }) {
  if (rows.length === 0) return null;
  const span = Math.max(...rows.map(({ points }) => points.seconds.at(-1) ?? 0));
  const lines: PlotLine[] = rows.flatMap((row, index) => {
    const fitted = row.fit;
    return [
      {
        name: `run ${row.run}`,
        colour: colours[index % 4],
        dash: dashes[index % 4],
        points: row.points.seconds.map((x, k) => ({ x: x / 60, y: row.points.celsius[k] })),
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
                return {
                  x: s / 60,
                  y: fitted.settledC - (fitted.settledC - fitted.startC) * Math.exp(-s / fitted.settleSeconds),
                };
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
      <table aria-label="Heat of each run" className="mt-2 w-full text-left text-[13px]">
        {head([
          "",
          "Run",
          "Settles at, 95 %",
          "Time constant",
          "To the limit",
          "Throttles",
          "Burst",
          "Sustained",
          "Cool-down",
        ])}
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
                    stroke={colours[index % 4]}
                    strokeWidth="2.5"
                    strokeDasharray={dashes[index % 4]}
                  />
                </svg>
              </td>
              <td className={cell}>
                {row.run}, {trial.arms[row.arm].name}
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
                  : row.throttles.length > 0
                    ? `${(row.throttles[0].startMs / 60_000).toFixed(1)} min`
                    : row.secondsToLimit === null
                      ? "never at this load"
                      : `${(row.secondsToLimit / 60).toFixed(1)} min`}
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
      <p className="mt-2 text-[12px] text-caution">
        Passive metal cases can burn. Keep to the maker&apos;s limit, the fan clear of fingers and dust, and let
        a hot battery be.
      </p>
    </Panel>
  );
}

function Clocks({
  fit: { state, rows, school },
  view: { trial, limits },
}: {
  fit: ClocksFit;
  view: TrialView;
}) {
  return (
    <Panel title="The ladder">
      <ol
        className="grid items-end gap-2"
        style={{ gridTemplateColumns: `repeat(${Math.min(4, trial.arms.length)}, minmax(0, 1fr))` }}
        aria-label="Steps of the ladder"
      >
        {trial.arms.map((arm, step) => {
          const own = rows.filter((row) => row.arm === step);
          const clean = own.filter(({ why }) => why === null).reduce((sum, { minutes }) => sum + minutes, 0);
          const failed = own.find(({ why }) => why !== null)?.why ?? null;
          const lit = school ? school.name === arm.name : state.lastClean === step;
          return (
            <li
              key={arm.name}
              className={`rounded-md border p-3 text-[13px] ${lit ? "border-lit" : "border-line"}`}
              style={{ minHeight: 104 + 26 * (step % 4) }}
            >
              <p className="font-semibold">{arm.name}</p>
              <p className="figure">{clean > 0 ? `${clean.toFixed(1)} min clean` : "not soaked"}</p>
              {failed && <p className="text-caution">given up: {failed}</p>}
              {own.length > 0 && (
                <p className="figure text-soft">
                  {say.number(own.at(-1)!.fps)} fps sustained
                  {own.at(-1)!.hottestC !== null && `, ${own.at(-1)!.hottestC!.toFixed(0)} °C`}
                  {own.at(-1)!.watts !== null && `, ${(own.at(-1)!.fps / own.at(-1)!.watts!).toFixed(1)} fps/W`}
                </p>
              )}
            </li>
          );
        })}
      </ol>
      {state.ruledOutPerHour !== null && (
        <p className="mt-3 text-[13px]">
          Clean for {state.cleanMinutes.toFixed(0)} min at {trial.arms[state.lastClean!].name}: more than{" "}
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

function Memory({ fit: { rows, limitMb, others, crashes } }: { fit: MemoryFit }) {
  if (rows.length === 0) return null;
  const reach = Math.max(
    ...rows.map(({ points, growth }) =>
      Math.max(
        points.minutes.at(-1) ?? 0,
        Math.min(growth?.minutesToLimit ?? 0, 4 * (points.minutes.at(-1) ?? 0)),
      ),
    ),
  );
  const lines: PlotLine[] = rows.flatMap((row, index) => [
    {
      name: `run ${row.run}`,
      colour: colours[index % 4],
      dash: dashes[index % 4],
      width: 2,
      points: row.points.minutes.map((x, k) => ({ x, y: row.points.megabytes[k] })),
    },
    ...(row.growth?.grows
      ? [row.growth.low, row.growth.high].map((slope, k) => ({
          name: `slope ${row.run} ${k}`,
          colour: "var(--soft)",
          dash: "2 4",
          width: 1,
          points: [
            { x: 0, y: row.growth!.startMb },
            { x: reach, y: row.growth!.startMb + slope * reach },
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
              ? `${growth.mbPerMinute.toFixed(1)} MB a minute (95 %: ${growth.low.toFixed(1)} to ${growth.high.toFixed(1)})${growth.minutesToLimit === null ? "" : `, the wall after ${growth.minutesToLimit.toFixed(1)} min (${growth.minutesLow!.toFixed(1)} to ${growth.minutesHigh!.toFixed(1)})`}`
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

/** Candidate rates with what would hold, and the overdriven clock scene by scene. */
export function RatePanel({
  rate,
  view: { trial },
}: {
  rate: NonNullable<TrialView["rate"]>;
  view: TrialView;
}) {
  const effectWords = {
    lifted: "lifted",
    "sped up": "was fine, now runs too fast",
    "no change": "no change",
    slower: "slower",
  } as const;
  return (
    <Panel
      title="Which rate holds"
      aside={<span className="figure text-[12px] text-soft">free: {rate.averageFps.toFixed(1)} fps</span>}
    >
      <table aria-label="Candidate rates" className="w-full text-left text-[13px]">
        {head(["Rate", "Windows that hold", "On this display", "Limiter", ""])}
        <tbody className="divide-y divide-line">
          {rate.candidates.map((each, index) => (
            <tr
              key={`${each.capFps} ${each.patch?.name}`}
              className={index === rate.recommended ? "bg-raised" : undefined}
            >
              <td className={`${cell} figure`}>
                {each.capFps === null ? "free" : `${say.number(each.capFps, each.capFps % 1 ? 2 : 0)} fps`}
                {each.patch && <span className="font-sans text-soft"> by patch {each.patch.name}</span>}
              </td>
              <td className={cell}>
                <span className="flex items-center gap-2">
                  <span className="h-2 w-32 rounded-sm bg-ground">
                    <span
                      className="block h-2 rounded-sm"
                      style={{
                        width: `${100 * each.held}%`,
                        background: each.held >= 0.99 ? "var(--series-a)" : "var(--series-b)",
                      }}
                    />
                  </span>
                  <span className="figure">{(100 * each.held).toFixed(1)} %</span>
                </span>
              </td>
              <td className={cell}>
                {each.refreshes === null
                  ? "as it comes"
                  : each.even
                    ? `${say.count(Math.round(each.refreshes), "refresh", "refreshes")} a frame`
                    : `${each.refreshes.toFixed(2)} refreshes a frame: uneven`}
              </td>
              <td className={`${cell} figure`}>{each.limiterValue === null ? "off" : each.limiterValue}</td>
              <td className={cell}>
                {[
                  index === rate.recommended && (
                    <b key="r" className="text-lit">
                      recommended
                    </b>
                  ),
                  each.slowMotion && " slow motion",
                  each.patch && ` ${each.patch.sideEffects}`,
                ].filter(Boolean)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rate.overdriven.length > 0 && (
        <>
          <h3 className="mt-4 text-[13px] font-semibold">The emulated clock overdriven, scene by scene</h3>
          <table aria-label="Overdriven clock by scene" className="mt-1 w-full text-left text-[13px]">
            {head(["Scene", "Usual", "Overdriven", ""])}
            <tbody className="divide-y divide-line">
              {rate.overdriven.map(({ label, before, after, effect }) => (
                <tr key={label}>
                  <td className={cell}>{label || "all"}</td>
                  <td className={`${cell} figure`}>{before.toFixed(1)} fps</td>
                  <td className={`${cell} figure`}>{after.toFixed(1)} fps</td>
                  <td className={cell}>{effectWords[effect]}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {rate.missing.map((words) => (
        <p key={words} className="mt-2 text-[13px] text-caution">
          {words}
        </p>
      ))}
      {trial.arms.length === 1 && (
        <p className="mt-2 text-[13px] text-soft">
          The engine&apos;s catalogue has no rate limiter, so nothing is written into the profile.
        </p>
      )}
    </Panel>
  );
}
