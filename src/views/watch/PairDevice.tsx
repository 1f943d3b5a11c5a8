"use client";
import { useState } from "react";
import { call } from "@/contract/client";
import { Button, Panel, say, toast } from "@/ui";

/** Makes a code that a device is paired with a rig by, and says what is typed on the device. */
export function PairDevice({ rigId, rig }: { rigId: string; rig: string }) {
  const [made, setMade] = useState<{ code: string; endsAt: string } | null>(null);
  const make = async () => {
    const sent = await call("beginPairing", { id: rigId });
    if (sent.ok) setMade(sent.answer);
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
  };
  const here = typeof window === "undefined" ? "" : window.location.origin;
  return (
    <Panel title="A device that measures itself">
      <p className="max-w-prose text-[13px]">
        The agent is one file for any Linux device with Node 18 or newer. It reads clocks, load, heat and watts
        from the device itself, streams the log that an engine writes, and makes the runs of trials that run by
        themselves. It opens no port, sends to this address alone, and changes nothing but the config file that
        its owner names in bench.toml, for the time of a run.
      </p>
      {made === null ? (
        <div className="mt-3">
          <Button onClick={() => void make()}>Pair a device with {rig}</Button>
        </div>
      ) : (
        <div role="status" className="mt-3">
          <p>
            <span className="figure text-2xl tracking-wider">{made.code}</span>{" "}
            <span className="text-[13px] text-soft">
              holds until {say.dateTime(new Date(made.endsAt))}, and pairs one device
            </span>
          </p>
          <p className="mt-2 text-[13px]">On the device:</p>
          <pre className="figure mt-1 overflow-x-auto rounded bg-ground p-2 text-[13px]">
            {`curl -o lamp-agent.mjs ${here}/agent.mjs
node lamp-agent.mjs pair ${here} ${made.code}
node lamp-agent.mjs stream --follow FOLDER`}
          </pre>
          <p className="mt-2 text-[13px] text-soft">
            FOLDER is where the engine writes its logs. The file&apos;s SHA-256 is at {here}/agent.mjs.sha256.
          </p>
        </div>
      )}
    </Panel>
  );
}
