"use client";
import type { Output } from "@/contract";
import { DeviceTable } from "./DeviceTable";
import { PairDevice } from "./PairDevice";

/** The devices that are paired with a rig, and the code for another. */
export function RigDevices({
  rig,
  live: { devices, runs },
}: {
  rig: { id: string; name: string };
  live: Output<"viewLive">;
}) {
  return (
    <div className="mx-auto mt-4 grid max-w-4xl gap-4 px-5 pb-8">
      <DeviceTable
        devices={devices.filter(({ rigId }) => rigId === rig.id)}
        runs={runs}
        title={`Devices of ${rig.name}`}
      />
      <PairDevice rigId={rig.id} rig={rig.name} />
    </div>
  );
}
