"use client";
import { CloudOff } from "lucide-react";
import { useEffect, useState } from "react";
import { Button, Sheet, say, toast } from "@/ui";
import { useConnected } from "./connection";
import { letGo, sendUnsent, typedBy, useUnsent } from "./outbox";

/** Between tries while something waits, ms. */
const pauseMs = 20_000;

/** Says when the application doesn't answer, and what waits to be sent; sends it when it does. */
export function Connection({ person }: { person: string | null }) {
  const isConnected = useConnected();
  const unsent = useUnsent();
  useEffect(() => typedBy(person), [person]);
  const [open, setOpen] = useState(false);
  const waits = unsent.some(({ by, refusal }) => refusal === null && by === person);
  useEffect(() => {
    if (!isConnected || !waits) return;
    const send = async () => {
      for (const { label } of await sendUnsent()) toast(`Sent now: ${label}.`);
    };
    void send();
    const timer = setInterval(() => void send(), pauseMs);
    return () => clearInterval(timer);
  }, [isConnected, waits]);
  if (isConnected && unsent.length === 0) return null;
  const count = unsent.length > 0 && `${say.count(unsent.length, "entry", "entries")} not sent yet`;
  return (
    <>
      <span role="status" className="shrink-0">
        <button
          type="button"
          onClick={() => setOpen(true)}
          className="inline-flex items-center gap-1.5 rounded-md border border-caution px-2 py-0.5 text-[12px] text-caution"
        >
          <CloudOff size={13} aria-hidden />
          {[!isConnected && "No connection", count].filter(Boolean).join(", ")}
        </button>
      </span>
      <Sheet open={open} onOpenChange={setOpen} title={isConnected ? "Not sent yet" : "No connection"}>
        {!isConnected && (
          <p className="mb-3">
            The application doesn&apos;t answer. What is open here can be read, and pages that were opened on
            this device before. Tallies and faults are kept on this device and sent when it answers.
          </p>
        )}
        {unsent.length === 0 ? (
          <p className="text-soft">Nothing waits to be sent.</p>
        ) : (
          <ul className="space-y-2">
            {unsent.map(({ key, label, by, at, refusal }) => (
              <li key={key} className="flex items-start justify-between gap-3 text-[13px]">
                <span>
                  {label}, typed {say.dateTime(new Date(at))}
                  {by !== person && by !== null && <span className="block">It waits for {by} to sign in.</span>}
                  {refusal !== null && <span className="block text-caution">Refused: {refusal}</span>}
                </span>
                <Button look="quiet" onClick={() => letGo(key)}>
                  Throw away
                </Button>
              </li>
            ))}
          </ul>
        )}
      </Sheet>
    </>
  );
}
