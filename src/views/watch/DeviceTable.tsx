"use client";
import { useRouter } from "next/navigation";
import { call } from "@/contract/client";
import type { Output } from "@/contract";
import type { LiveRun } from "@/core/records";
import { Button, Panel, TableFrame, When, toast } from "@/ui";

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
  const heads = ["Device", "Rig", "Does", "Last seen", ""];
  return (
    <Panel title={title}>
      <TableFrame name={title} cards>
        <table className="w-full text-[13px]">
          <thead>
            <tr>
              {heads.map((head) => (
                <th key={head} scope="col" className="px-2 py-1 text-left font-normal text-soft">
                  {head || <span className="sr-only">Action</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {devices.map((device) => {
              const run = runs.find(({ rigId }) => rigId === device.rigId);
              const cells = [
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
              return (
                <tr key={device.id} className="border-t border-line">
                  {cells.map((cell, at) => (
                    <td key={heads[at]} className="px-2 py-1 [overflow-wrap:anywhere]" dir="auto">
                      {cell}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </TableFrame>
    </Panel>
  );
}
