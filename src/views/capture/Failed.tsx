import { useState } from "react";
import { counterDigits, type Counter, type Region } from "@/core/capture";
import { Button, Input, Panel, say } from "@/ui";
import { MomentPicture } from "./MomentPicture";
import type { CaptureSession } from "./session";

/** So many are shown at once. */
const shownAtOnce = 6;

/** Readings of the counter that failed, as small pictures to be typed, or said to be none. */
export function Failed({ session, counter, box }: { session: CaptureSession; counter: Counter; box: Region }) {
  const { settled } = session.read();
  const left = counter.dropped.filter(({ atMs }) => !settled.readings.has(atMs));
  const put = (atMs: number, fps: number | null) =>
    void session.settle({ readings: new Map([...settled.readings, [atMs, fps]]) });
  if (left.length === 0 && settled.readings.size === 0) return null;
  return (
    <Panel title="Readings that failed">
      {left.length > 0 && (
        <p className="mb-2 text-[13px] text-soft">
          {say.count(left.length, "reading")} of the counter couldn&apos;t be read, or jump where the pictures
          don&apos;t. Type what you see, or drop it.
        </p>
      )}
      <ul className="grid gap-2">
        {left.slice(0, shownAtOnce).map(({ atMs, text }) => (
          <li key={atMs}>
            <FailedReading
              session={session}
              atMs={atMs}
              read={text}
              box={box}
              onSettled={(fps) => put(atMs, fps)}
            />
          </li>
        ))}
      </ul>
      {settled.readings.size > 0 && (
        <p className="mt-2 text-[13px] text-soft">
          {say.count(settled.readings.size, "reading")} settled by hand.{" "}
          <Button look="quiet" onClick={() => void session.settle({ readings: new Map() })}>
            Take that back
          </Button>
        </p>
      )}
    </Panel>
  );
}

function FailedReading({
  session,
  atMs,
  read,
  box,
  onSettled,
}: {
  session: CaptureSession;
  atMs: number;
  /** What recognition made of it. */
  read: string;
  box: Region;
  onSettled: (fps: number | null) => void;
}) {
  const [typed, setTyped] = useState("");
  const fps = counterDigits(typed);
  return (
    <form
      className="flex flex-wrap items-center gap-2 text-[13px]"
      onSubmit={(event) => {
        event.preventDefault();
        if (fps !== null) onSettled(fps);
      }}
    >
      <MomentPicture
        session={session}
        ms={atMs}
        part={box}
        label={`The counter at ${say.clock(atMs)}`}
        className="h-8 max-w-40"
      />
      <span className="figure text-soft">{say.clock(atMs)}</span>
      {read.trim() !== "" && <span className="text-soft">read as “{read.trim().slice(0, 12)}”</span>}
      <Input
        aria-label={`What the counter shows at ${say.clock(atMs)}, fps`}
        value={typed}
        inputMode="decimal"
        maxLength={8}
        onChange={(event) => setTyped(event.target.value)}
        className="!min-h-8 !w-16"
      />
      <Button type="submit" disabled={fps === null}>
        Take it
      </Button>
      <Button look="quiet" type="button" onClick={() => onSettled(null)}>
        Drop it
      </Button>
    </form>
  );
}
