"use client";
import type { LiveRun } from "@/core/records";
import { BandChart, say, useWidth } from "@/ui";
import { lanes } from "@/views/job/lanes";
import type { Drawn, Watched } from "./watched";

/** Frame time of the last 30 s and of the whole run, what the device did under either on the same time axis. */
export function LiveCharts({ run, now }: { run: LiveRun; now: Watched }) {
  const [measure, width] = useWidth();
  const half = width >= 900 ? Math.floor((width - 16) / 2) : width;
  return (
    <div ref={measure} className="mt-3 flex flex-wrap gap-4">
      {width > 0 && (
        <>
          <Along title="Last 30 s" run={run} drawn={now.drawnLast} most={now.most} width={half} />
          <Along title="The whole run so far" run={run} drawn={now.drawnWhole} most={now.most} width={half} />
        </>
      )}
    </div>
  );
}

function Along({
  title,
  run,
  drawn: { range, frames, channels },
  most,
  width,
}: {
  title: string;
  run: LiveRun;
  drawn: Drawn;
  most: Watched["most"];
  width: number;
}) {
  const targetMs = 1000 / run.targetFps;
  const series = (band: Drawn["frames"]) => [{ name: "A", band, colour: "var(--series-a)" }];
  return (
    <section aria-label={title}>
      <p className="pl-11 text-[11px] text-soft">
        {title}: frame time, ms; dotted: <span className="figure">{say.plain(run.targetFps)} fps</span>
      </p>
      <BandChart
        unit="ms"
        label={`Frame time, ${title.toLowerCase()}`}
        width={width}
        height={140}
        range={range}
        values={[0, targetMs * 3]}
        ticks={4}
        series={series(frames)}
        levels={[{ value: targetMs, label: `${say.plain(run.targetFps)} fps` }]}
        names={run.marks
          .map(({ label, startMs, endMs }) => ({ label, from: startMs, to: endMs ?? range[1] }))
          .filter(({ from, to }) => to > range[0] && from < range[1])}
        axis
        formatX={(ms) => say.clock(ms)}
      />
      {lanes.map(({ name, unit, roles, most: fixed }) => {
        const role = roles.find((each) => channels[each] !== undefined);
        const band = role === undefined ? undefined : channels[role];
        if (role === undefined || band === undefined) return null;
        return (
          <div key={name} className="mt-1">
            <p className="pl-11 text-[11px] text-soft">
              {name}, {unit}
            </p>
            <BandChart
              unit={unit}
              label={`${name}, ${title.toLowerCase()}`}
              width={width}
              height={40}
              range={range}
              values={[0, fixed ?? Math.max(1, (most[role] ?? 0) * 1.1)]}
              ticks={2}
              series={series(band)}
              formatX={(ms) => say.clock(ms)}
            />
          </div>
        );
      })}
    </section>
  );
}
