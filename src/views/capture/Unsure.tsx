import { useState } from "react";
import type { CaptureResult } from "@/core/capture";
import { Button, Keys, Panel, say } from "@/ui";
import { MomentPicture } from "./MomentPicture";
import type { CaptureSession } from "./session";

/** Unsure pictures, one after the other, each beside the one before it: a person says whether it is another. */
export function Unsure({
  session,
  result,
  onMoment,
}: {
  session: CaptureSession;
  result: CaptureResult;
  onMoment: (ms: number) => void;
}) {
  const [at, setAt] = useState(0);
  const { settled } = session.read();
  const [picture] = result.unsure.slice(Math.min(at, result.unsure.length - 1));
  const done = settled.pictures.size;
  if (!picture)
    return done === 0 ? null : (
      <Panel title="Unsure pictures">
        <p className="text-[13px] text-soft">
          All settled: {say.count(done, "picture")} by looking.{" "}
          <Button look="quiet" onClick={() => void session.settle({ pictures: new Map() })}>
            Take that back
          </Button>
        </p>
      </Panel>
    );
  const { place, atMs, beforeMs, takenFor } = picture;
  const settle = (kind: typeof takenFor) => {
    setAt(Math.min(at, Math.max(0, result.unsure.length - 2)));
    void session.settle({ pictures: new Map([...settled.pictures, [place, kind]]) });
  };
  const step = (by: number) => {
    const next = (Math.min(at, result.unsure.length - 1) + by + result.unsure.length) % result.unsure.length;
    setAt(next);
    onMoment(result.unsure[next]?.atMs ?? 0);
  };
  return (
    <Panel title="Unsure pictures">
      <Keys
        actions={[
          { keys: "i", shown: "I", label: "next unsure picture", run: () => step(1) },
          { keys: "s", shown: "S", label: "the same picture as before", run: () => settle("repeat") },
          { keys: "d", shown: "D", label: "a different picture", run: () => settle("new") },
        ]}
      />
      <p className="mb-2 text-[13px]">
        <span className="figure">{Math.min(at, result.unsure.length - 1) + 1}</span> of{" "}
        <span className="figure">{result.unsure.length}</span>, at{" "}
        <span className="figure">{say.clock(atMs)}</span>: taken for{" "}
        {takenFor === "new" ? "a new picture" : "the one before again"}. Is it the same as the one before?
      </p>
      <div className="grid grid-cols-2 gap-2">
        <MomentPicture session={session} ms={beforeMs} label="The picture before" className="w-full" />
        <MomentPicture session={session} ms={atMs} label="The unsure picture" className="w-full" />
      </div>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button hint="S" onClick={() => settle("repeat")}>
          The same
        </Button>
        <Button hint="D" onClick={() => settle("new")}>
          A different one
        </Button>
        <Button look="quiet" hint="I" onClick={() => step(1)}>
          Look at the next unsure picture
        </Button>
        {done > 0 && (
          <Button look="quiet" onClick={() => void session.settle({ pictures: new Map() })}>
            Take back all {done}
          </Button>
        )}
      </div>
    </Panel>
  );
}
