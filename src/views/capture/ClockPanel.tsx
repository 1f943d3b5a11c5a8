import { X } from "lucide-react";
import { useState } from "react";
import { clockOnScreen } from "@/core/capture";
import { Button, Input, Panel, say } from "@/ui";
import type { CaptureSession, InHand } from "./session";

/** Speed by a running clock in the title's own picture, read at two moments. */
export function ClockPanel({ session, inHand }: { session: CaptureSession; inHand: InHand }) {
  const { clock, moment, regional } = inHand;
  const [reading, setReading] = useState(false);
  const { speed, why } = session.clockSpeed();
  const add = async () => {
    const box = regional.clock;
    setReading(true);
    const told = box ? await session.call.readClock(moment, box) : null;
    setReading(false);
    const text = told?.ok ? (told.text ?? "") : "";
    session.put({ clock: [...clock, { atMs: moment, text }].slice(-2) });
  };
  return (
    <Panel title="Speed by the title's clock">
      <p className="mb-2 text-[13px] text-soft">
        Where the title shows a running clock, its seconds against the video&apos;s are the speed. Read it at
        two moments, far apart.
      </p>
      <ul className="grid gap-2 text-[13px]">
        {clock.map(({ atMs, text }, at) => {
          const isRead = clockOnScreen(text) !== null;
          return (
            <li key={at} className="flex flex-wrap items-center gap-2">
              <span className="figure text-soft">at {say.clock(atMs)}</span>
              <Input
                aria-label={`What the clock shows at ${say.clock(atMs)}`}
                aria-invalid={!isRead}
                placeholder="e.g. 1:23.4"
                value={text}
                maxLength={16}
                onChange={(event) => session.put({ clock: clock.with(at, { atMs, text: event.target.value }) })}
                className="!min-h-8 !w-24"
              />
              {!isRead && <span className="text-caution">Type what it shows.</span>}
              <Button
                look="quiet"
                aria-label={`Remove the reading at ${say.clock(atMs)}`}
                className="!px-1.5"
                onClick={() => session.put({ clock: clock.filter((_, other) => other !== at) })}
              >
                <X size={14} aria-hidden />
              </Button>
            </li>
          );
        })}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button disabled={reading} onClick={() => void add()}>
          {regional.clock ? "Read it here" : "Note it here"}
        </Button>
        {speed && (
          <span className="text-[13px]">
            <b className="figure">{say.number(100 * speed.speed)} %</b> of full speed (
            {say.number(100 * speed.low)} to {say.number(100 * speed.high)} %)
          </span>
        )}
        {why && <span className="text-[13px] text-caution">{why}</span>}
      </div>
    </Panel>
  );
}
