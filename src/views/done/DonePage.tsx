"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import type { DeedRow } from "@/core/records";
import { deedWords } from "@/core/words";
import { Button, EmptyPanel, Link, When, say, toast } from "@/ui";
import { aboutWords, type About } from "./about";

/** The last hundred things that were done, each with its undoing. */
export function DonePage({ rows, about, name }: { rows: DeedRow[]; about: About; name: string | null }) {
  const router = useRouter();
  const [busy, setBusy] = useState<string | null>(null);
  const undo = async (deed: DeedRow) => {
    setBusy(deed.id);
    const sent = await call("undoDeed", { id: deed.id });
    setBusy(null);
    if (sent.ok) toast(`Undone: ${deedWords(deed)}`);
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
    router.refresh();
  };
  return (
    <div className="mx-auto max-w-4xl p-5">
      <h1 className="text-xl font-semibold">What was done</h1>
      <p className="mt-1 max-w-prose text-soft">
        The last hundred changes{" "}
        {about.kind === "job" && name ? (
          <>
            in the job{" "}
            <Link href={`/jobs/${about.id}`} className="text-text underline decoration-line underline-offset-4">
              {name}
            </Link>
          </>
        ) : (
          aboutWords[about.kind]
        )}
        , the newest first. Undoing one puts back everything that it changed, and judges anew what rests on it;
        Ctrl+Z undoes the last one of a page.
        {about.kind !== "" && (
          <>
            {" "}
            <Link href="/done" className="text-text underline decoration-line underline-offset-4">
              Show everything
            </Link>
          </>
        )}
      </p>
      {rows.length === 0 ? (
        <div className="mt-4">
          <EmptyPanel title="Nothing yet">
            What is changed from now on stands here, and can be undone.
          </EmptyPanel>
        </div>
      ) : (
        <ol
          className="mt-4 divide-y divide-line rounded-(--radius-panel) bg-panel px-4"
          aria-label="What was done"
        >
          {rows.map((deed) => (
            <li key={deed.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2.5">
              <span
                className={`min-w-0 flex-1 [overflow-wrap:anywhere] ${deed.undone ? "text-soft line-through" : ""}`}
              >
                {deedWords(deed)}
                <span className="block text-[12px] text-soft">
                  <When at={deed.at} />, by {deed.actor}; {say.count(deed.rows, "row")}
                </span>
              </span>
              {deed.undone ? (
                <span className="text-[13px] text-soft">undone</span>
              ) : (
                <Button disabled={busy !== null} onClick={() => void undo(deed)}>
                  {deed.undoing ? "Do it again" : "Undo"}
                </Button>
              )}
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}
