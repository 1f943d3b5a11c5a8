import type { Summary } from "@/core/metrics";
import { Button, NamedFigure, say } from "@/ui";

/** Figures of a selected stretch, of the run and of the one laid over it. */
export function PartFigures({
  selection,
  figures,
  over,
  onZoom,
  onClear,
}: {
  selection: [number, number];
  figures: Summary | null;
  over: Summary | null;
  onZoom: () => void;
  onClear: () => void;
}) {
  const row = (summary: Summary, name: string) => (
    <dl className="grid grid-cols-6 gap-3" data-testid={`part-${name}`}>
      <NamedFigure name="Average" value={say.number(summary.averageFps, 2)} unit="fps" />
      <NamedFigure name="Median" value={say.number(summary.medianFrameTimeMs, 2)} unit="ms" />
      <NamedFigure name="99 %" value={say.number(summary.p99FrameTimeMs, 2)} unit="ms" />
      <NamedFigure name="1 % low, worst time" value={say.number(summary.lows?.worstTime.one)} unit="fps" />
      <NamedFigure name="Full-speed time" value={say.number(summary.fullSpeedTimePercent)} unit="%" />
      <NamedFigure name="Hitches" value={summary.hitches ? String(summary.hitches.count) : "–"} />
    </dl>
  );
  return (
    <section className="rounded-md bg-panel p-3" aria-label="Selected stretch">
      <header className="mb-2 flex items-center gap-3 text-[13px]">
        <span className="figure">
          {say.clock(selection[0])} to {say.clock(selection[1])}
        </span>
        <Button look="quiet" hint="Z" onClick={onZoom} className="ml-auto">
          Zoom to it
        </Button>
        <Button look="quiet" onClick={onClear}>
          Clear
        </Button>
      </header>
      {figures ? row(figures, "A") : <p className="text-soft">No frame ends in this stretch.</p>}
      {over && <div className="mt-2 border-t border-line pt-2">{row(over, "B")}</div>}
    </section>
  );
}
