"use client";
import { useRouter } from "next/navigation";
import { useState, type ReactNode } from "react";
import { call } from "@/contract/client";
import { faultKinds } from "@/core/kit";
import type { LiveRun } from "@/core/records";
import { Button, Keys, say, toast } from "@/ui";

/** What a mark is called while a title loads. */
const loading = "Loading";
/** The stream is behind by no more than this, ms: what is pressed later than that after a piece isn't in the run yet. */
const behindMs = 2000;

/** Marks of a run that grows, by a tap or a key: its scenes, loading, a visit anew, a fault. */
export function LiveMarks({
  run,
  lengthMs,
  cameAt,
  children,
}: {
  run: LiveRun;
  lengthMs: number;
  /** When the newest piece came, by `performance.now()`. */
  cameAt: number | null;
  children: ReactNode;
}) {
  const router = useRouter();
  const [askKind, setAskKind] = useState(false);
  const open = run.marks.findLast(({ endMs }) => endMs === null);
  const nowMs = () => lengthMs + Math.min(behindMs, cameAt === null ? 0 : performance.now() - cameAt);
  const mark = async (label: string | null) => {
    const sent = await call("markRun", { id: run.runId, body: { label, atMs: Math.round(nowMs()) } });
    if (!sent.ok) return void toast.error(sent.refusal.title, { description: sent.refusal.fix });
    router.refresh();
  };
  const nextScene = () => {
    const at = run.scenes.indexOf(open?.label ?? "");
    const next = run.scenes[(at + 1) % run.scenes.length];
    if (next !== undefined) void mark(next);
  };
  const fault = async (kind: (typeof faultKinds)[number]) => {
    setAskKind(false);
    const atMs = Math.round(Math.min(nowMs(), lengthMs));
    const scene = open && open.label !== loading ? open.label : "";
    const body = { runId: run.runId, kind, severity: "slight" as const, scene, atMs, note: "", workaround: "" };
    const sent = await call("addFault", { body });
    if (!sent.ok) return void toast.error(sent.refusal.title, { description: sent.refusal.fix });
    toast(`A fault of ${kind} at ${say.clock(atMs)}, slight until it is said otherwise on the job's page.`);
  };
  return (
    <div className="mt-3 grid gap-2">
      <div className="flex flex-wrap items-center gap-2 [&_button]:min-h-11">
        {children}
        {run.scenes.map((scene) => (
          <Button key={scene} aria-pressed={open?.label === scene} onClick={() => void mark(scene)}>
            {scene}
          </Button>
        ))}
        <Button hint="L" aria-pressed={open?.label === loading} onClick={() => void mark(loading)}>
          {loading}
        </Button>
        {open && (
          <>
            <Button hint="V" onClick={() => void mark(open.label)}>
              {open.label} anew
            </Button>
            <Button hint="U" onClick={() => void mark(null)}>
              End {open.label}
            </Button>
          </>
        )}
        <Button hint="F" aria-expanded={askKind} onClick={() => setAskKind(!askKind)}>
          Fault
        </Button>
        {askKind &&
          faultKinds.map((kind) => (
            <Button key={kind} look="quiet" onClick={() => void fault(kind)}>
              {kind}
            </Button>
          ))}
      </div>
      {run.marks.length > 0 && (
        <p className="text-[13px] text-soft" data-testid="live-marks">
          {run.marks
            .slice(-6)
            .map(({ label, startMs, endMs }) =>
              endMs === null
                ? `${label} since ${say.clock(startMs)}`
                : `${label} ${say.clock(startMs)} to ${say.clock(endMs)}`,
            )
            .join(", ")}
        </p>
      )}
      <Keys
        actions={[
          ...(run.scenes.length > 0
            ? [{ keys: "m", shown: "M", label: "mark the next scene", run: nextScene }]
            : []),
          { keys: "l", shown: "L", label: "mark a loading", run: () => void mark(loading) },
          ...(open
            ? [
                { keys: "v", shown: "V", label: `${open.label} anew`, run: () => void mark(open.label) },
                { keys: "u", shown: "U", label: `end ${open.label}`, run: () => void mark(null) },
              ]
            : []),
          { keys: "f", shown: "F", label: "a fault here", run: () => setAskKind(!askKind) },
        ]}
      />
    </div>
  );
}
