"use client";
import { useRouter, useSearchParams } from "next/navigation";
import type { Output } from "@/contract";
import { Button, EmptyPanel, Keys } from "@/ui";
import { DeviceTable } from "./DeviceTable";
import { LiveRow } from "./LiveRow";
import { LiveRunPanel } from "./LiveRunPanel";
import { PairDevice } from "./PairDevice";

/** Runs while they happen: one large, the others as rows; and the devices that bring them. */
export function LivePage({
  view: { runs, devices },
  rig,
}: {
  view: Output<"viewLive">;
  /** The one on the bench, that a device is paired with from here. */
  rig: { id: string; name: string } | null;
}) {
  const router = useRouter();
  const asked = useSearchParams().get("run");
  const chosen = runs.find(({ runId }) => runId === asked) ?? runs[0];
  const choose = (runId: string) => router.replace(`/live?run=${runId}`);
  const step = () => {
    const at = runs.findIndex(({ runId }) => runId === chosen?.runId);
    const next = runs[(at + 1) % runs.length];
    if (next) choose(next.runId);
  };
  return (
    <div className="grid gap-3 p-3">
      <h1 className="sr-only">Live</h1>
      {chosen ? (
        <LiveRunPanel key={chosen.runId} run={chosen} />
      ) : (
        <EmptyPanel
          title="No run grows now"
          action={
            devices.length > 0 ? (
              <Button onClick={() => router.push("/jobs")}>Choose the job that runs go to</Button>
            ) : undefined
          }
        >
          {devices.length > 0
            ? "A paired device brings its next run here as soon as its log begins: to the job on the bench, or to the one worked on last."
            : "Pair a device below. Its runs are shown here while they happen: speed, heat and watts, with marks by key."}
        </EmptyPanel>
      )}
      {runs.length > 1 && (
        <ul className="grid gap-1" aria-label="Runs that grow now">
          {runs.map((run) => (
            <LiveRow
              key={run.runId}
              run={run}
              isChosen={run.runId === chosen?.runId}
              onChoose={() => choose(run.runId)}
            />
          ))}
        </ul>
      )}
      <DeviceTable devices={devices} runs={runs} title="Devices" />
      {rig && <PairDevice rigId={rig.id} rig={rig.name} />}
      {runs.length > 1 && (
        <Keys actions={[{ keys: "n", shown: "N", label: "the next run that grows", run: step }]} />
      )}
    </div>
  );
}
