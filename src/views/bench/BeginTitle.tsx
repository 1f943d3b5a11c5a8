"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import { SearchChoice, toast } from "@/ui";
import { useTitles } from "@/views/kit/useTitles";

/** A title, picked: its job begins with everything chosen, at its first run. */
export function BeginTitle({ rig }: { rig: string }) {
  const router = useRouter();
  const { titles, more, search, finding } = useTitles();
  const [busy, setBusy] = useState(false);
  const begin = async (titleId: string) => {
    if (busy) return;
    setBusy(true);
    const sent = await call("beginTitle", { body: { titleId } });
    setBusy(false);
    if (sent.ok) router.push(`/jobs/${sent.answer.id}/runs/new`);
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
  };
  return (
    <div className="flex flex-wrap items-center gap-2 text-[13px]">
      <span className="text-soft">Another title on {rig}:</span>
      <div className="w-64">
        <SearchChoice
          label="Begin with a title"
          value={null}
          shown={busy ? "Opening …" : undefined}
          options={titles.map(({ id, name, system }) => ({ value: id, label: name, note: system }))}
          onChange={(titleId) => void begin(titleId)}
          onSearch={search}
          finding={finding}
          more={more}
        />
      </div>
    </div>
  );
}
