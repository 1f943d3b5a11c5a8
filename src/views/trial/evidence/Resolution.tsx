"use client";
import { first, hasSize } from "@/core/kit";
import { armAt } from "@/core/trial";
import { arranged, filled, planScales } from "@/core/resolution";
import { frameTimeAt } from "@/core/sweep";
import type { ResolutionReading } from "@/core/trial";
import { words } from "@/core/words";
import { Button, Keys, Panel, Plot, say } from "@/ui";
import { ScreenDrawing } from "@/views/kit/ScreenDrawing";
import { upTo, type EvidenceProps } from "./parts";

/** Frame time by scale with the law, and the scales on the display they are for. */
export function Resolution({
  reading: { law, levels, next, arm },
  view: { trial, targetFps: target, display, screens },
  onAdd,
}: EvidenceProps<ResolutionReading>) {
  if (levels.length === 0) return null;
  const reach = Math.max(...levels.map(({ scale }) => scale)) + 1;
  const predicted = law?.predicted.filter(({ scale }) => scale <= reach) ?? [];
  const native = screens.reduce((sum, { width, height }) => sum + width * height, 0) / 1e6;
  const curve = law
    ? Array.from({ length: 60 }, (_, k) => {
        const x = 0.5 + ((reach - 0.5) * k) / 59;
        return { x, y: frameTimeAt(law, native * x * x) };
      })
    : [];
  const kept = arm === null ? null : armAt(trial, arm).level;
  const onDisplay = screens.length > 0 && hasSize(display) ? display : null;
  const plan = onDisplay && planScales(screens, onDisplay, "contain", "stacked");
  const whole = onDisplay && arranged(screens, "stacked");
  const lines = whole ? first(screens).height / first(whole.places).height : 1;
  const shown =
    whole &&
    onDisplay &&
    filled({ width: lines * whole.aspect, height: lines, aspect: whole.aspect }, onDisplay, "contain");
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
          range: [0, upTo([1000 / target, ...levels.map(({ medianMs, p99Ms }) => p99Ms ?? medianMs)])],
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
            points: levels.flatMap(({ scale, p99Ms }) => (p99Ms === null ? [] : [{ x: scale, y: p99Ms }])),
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
          <p>{words(next.sentence)}</p>
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
      {onDisplay && plan && whole && shown && (
        <div className="mt-3 flex flex-wrap items-end gap-3" aria-label={`The scales on ${display.name}`}>
          {levels.map(({ scale }) => {
            const row = plan.scales.find((each) => each.scale === scale);
            if (!row) return null;
            return (
              <div key={scale} className="w-52">
                <ScreenDrawing
                  row={row}
                  display={onDisplay}
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
