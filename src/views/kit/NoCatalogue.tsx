"use client";
import { useQuery } from "@tanstack/react-query";
import { usePathname, useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import { Button, ChoiceField, Link, say, toast } from "@/ui";

/**
 * An engine without settings, where they are missed: read from its config file, taken from another engine, or
 * listed by hand. Each way comes back here.
 */
export function NoCatalogue({ engineId, rigId }: { engineId: string; rigId: string | null }) {
  const path = usePathname();
  const router = useRouter();
  const [from, setFrom] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const { data: engines = [] } = useQuery({
    queryKey: ["engines with settings"],
    queryFn: async () => {
      const sent = await call("viewIncoming", { query: {} });
      return sent.ok ? sent.answer.engines.filter(({ keys }) => keys.length > 0) : [];
    },
  });
  const others = engines.filter(({ id }) => id !== engineId);
  const copy = async () => {
    if (from === null) return;
    setBusy(true);
    const [theirs, own] = await Promise.all([
      call("viewEngine", { id: from }),
      call("viewEngine", { id: engineId }),
    ]);
    if (theirs.ok && own.ok) {
      const { id, version, ...rest } = own.answer;
      const sent = await call("changeEngine", {
        id,
        body: { ...rest, catalogue: theirs.answer.catalogue },
        saw: version,
      });
      if (sent.ok) {
        toast(`${say.count(theirs.answer.catalogue.length, "setting")} taken over.`, {
          description: "Look through them: defaults may differ. Ctrl+Z takes them back.",
        });
        router.refresh();
      } else toast.error(sent.refusal.title, { description: sent.refusal.fix });
    }
    setBusy(false);
  };
  const link = "underline decoration-line underline-offset-4 hover:decoration-text";
  return (
    <div className="grid gap-2 text-[13px]" role="group" aria-label="The engine has no settings listed">
      <p className="text-soft">
        This engine has no settings listed, so none of them can be tried or recorded. They come
      </p>
      <ul className="grid list-disc gap-1.5 pl-5">
        {rigId !== null && (
          <li>
            <Link
              className={link}
              href={`/profiles?${new URLSearchParams({ rig: rigId, engine: engineId, tab: "file", back: path })}`}
            >
              from its config file
            </Link>
            : drop it there, and take its keys into the catalogue
          </li>
        )}
        {others.length > 0 && (
          <li className="flex flex-wrap items-center gap-2">
            from another engine:
            <ChoiceField
              quiet
              label="Engine to take settings from"
              value={from}
              options={others.map(({ id, name, keys }) => ({
                value: id,
                label: name,
                note: say.count(keys.length, "setting"),
              }))}
              onChange={setFrom}
            />
            <Button disabled={from === null || busy} onClick={() => void copy()}>
              Take them over
            </Button>
          </li>
        )}
        <li>
          <Link className={link} href={`/kit/engines/${engineId}?${new URLSearchParams({ back: path })}`}>
            by hand
          </Link>
          , one by one, or from a catalogue file
        </li>
      </ul>
    </div>
  );
}
