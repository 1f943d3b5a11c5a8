"use client";
import { useRouter } from "next/navigation";
import { call } from "@/contract/client";
import type { Output } from "@/contract";
import type { LiveRun } from "@/core/records";
import { Button, Panel, RowsTable, When, toast } from "@/ui";

type Device = Output<"viewLive">["devices"][number];

/** Devices that were paired, and what each does. */
export function DeviceTable({
  devices,
  runs,
  title,
}: {
  devices: Device[];
  runs: Pick<LiveRun, "rigId" | "title">[];
  title: string;
}) {
  const router = useRouter();
  if (devices.length === 0) return null;
  const revoke = async ({ id, name }: Device) => {
    const sent = await call("revokeProgram", { id });
    if (sent.ok) toast(`${name} brings nothing any more.`);
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
    router.refresh();
  };
  return (
    <Panel title={title}>
      <RowsTable
        name={title}
        heads={["Device", "Rig", "Does", "Last seen", ""]}
        rows={devices.map((device) => {
          const run = runs.find(({ rigId }) => rigId === device.rigId);
          return [
            device.name,
            device.rig,
            run ? `a run of ${run.title} grows on its rig` : "nothing just now",
            device.seenAt ? <When key="seen" at={device.seenAt} as="ago" /> : "never",
            <Button
              key="revoke"
              look="quiet"
              aria-label={`Revoke: ${device.name}`}
              onClick={() => void revoke(device)}
            >
              Revoke
            </Button>,
          ];
        })}
      />
    </Panel>
  );
}
