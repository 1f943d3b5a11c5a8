import { useState } from "react";
import { momentKinds, type CaptureMoment, type MomentKind } from "@/core/capture";
import { Button, Panel, say } from "@/ui";
import { MomentPicture } from "./MomentPicture";
import type { CaptureSession } from "./session";

const kindNames: Record<MomentKind, string> = {
  long: "stood long",
  doubtful: "doubtful",
  lost: "counter not read",
  marked: "marked",
};
/** Shown at once: each is a picture taken out of the video. */
const shownAtOnce = 8;

/** What is said of a moment beside its time. */
function momentText({ kind, label, lastsMs }: CaptureMoment, stepMs: number): string {
  const stood = `stood ${say.number(lastsMs, 0)} ms, ${say.count(Math.max(1, Math.round(lastsMs / stepMs)), "captured picture")}`;
  if (kind === "marked") return `${label} begins`;
  if (kind === "lost") return label === "" ? "nothing read of the counter" : `read of the counter: “${label}”`;
  return kind === "long" ? stood : `doubtful; ${stood}`;
}

/** The moments that stand out, each with its picture and figures; pressing one goes there. */
export function Moments({
  session,
  moments,
  stepMs,
  moment,
  onMoment,
}: {
  session: CaptureSession;
  moments: CaptureMoment[];
  stepMs: number;
  /** The moment that is looked at, ms. */
  moment: number;
  onMoment: (ms: number) => void;
}) {
  const [kind, setKind] = useState<MomentKind | null>(null);
  const [most, setMost] = useState(shownAtOnce);
  const counts = momentKinds.map((each) => ({
    kind: each,
    count: moments.filter((one) => one.kind === each).length,
  }));
  const listed = moments.filter((one) => kind === null || one.kind === kind);
  return (
    <Panel title="What stands out" className="content-start">
      {moments.length === 0 ? (
        <p className="text-[13px] text-soft">
          Nothing: no picture stood much longer than the others, and none is doubtful.
        </p>
      ) : (
        <>
          <div role="group" aria-label="Which moments" className="mb-2 flex flex-wrap gap-1">
            {counts
              .filter(({ count }) => count > 0)
              .map((each) => (
                <Button
                  key={each.kind}
                  look="quiet"
                  aria-pressed={kind === each.kind}
                  className="aria-pressed:bg-raised"
                  onClick={() => {
                    setKind(kind === each.kind ? null : each.kind);
                    setMost(shownAtOnce);
                  }}
                >
                  {each.count} {kindNames[each.kind]}
                </Button>
              ))}
          </div>
          <ol aria-label="Moments" className="grid gap-1.5">
            {listed.slice(0, most).map((one) => (
              <li key={`${one.kind} ${one.atMs}`}>
                <button
                  type="button"
                  aria-current={Math.abs(one.atMs - moment) < stepMs / 2 || undefined}
                  onClick={() => onMoment(one.atMs)}
                  className="flex w-full items-center gap-2 rounded-md p-1 text-left text-[12px] hover:bg-raised aria-[current]:bg-raised"
                >
                  <MomentPicture
                    session={session}
                    ms={one.atMs}
                    label={`At ${say.clock(one.atMs)}`}
                    className="w-24 shrink-0"
                  />
                  <span>
                    <span className="figure block">{say.clock(one.atMs)}</span>
                    <span className="text-soft">{momentText(one, stepMs)}</span>
                  </span>
                </button>
              </li>
            ))}
          </ol>
          {listed.length > most && (
            <Button look="quiet" onClick={() => setMost(most + 2 * shownAtOnce)}>
              {listed.length - most} more
            </Button>
          )}
        </>
      )}
    </Panel>
  );
}
