"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import type { Output } from "@/contract";
import { Button, Panel, say, toast } from "@/ui";

/** What is kept here as a whole: the demo data, and the store as one file. */
export function StorePage({ demo }: { demo: Output<"viewDemo"> }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const change = async (endpoint: "bringDemo" | "removeDemo", done: string) => {
    setBusy(true);
    const sent = await call(endpoint);
    setBusy(false);
    if (sent.ok) toast(done);
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
    router.refresh();
  };
  const there = demo.jobs - demo.own;
  return (
    <div className="grid gap-4 md:grid-cols-2">
      <Panel title="Demo data">
        <p className="mb-3">
          {there > 0
            ? `${say.count(there, "job")} of the lending library's demo, made on a simulated bench, ${there === 1 ? "is" : "are"} in the store.`
            : "None of the demo's own jobs is in the store."}
          {demo.own > 0 &&
            ` You brought runs into ${demo.own === 1 ? "one more of its jobs: that one stays" : `${demo.own} more of its jobs: those stay`}, with all that they need.`}
        </p>
        {there > 0 ? (
          <Button disabled={busy} onClick={() => void change("removeDemo", "The demo is taken away.")}>
            Take the demo away
          </Button>
        ) : (
          <Button disabled={busy} onClick={() => void change("bringDemo", "The demo is back.")}>
            {busy ? "Simulating its runs …" : "Bring the demo in"}
          </Button>
        )}
        <p className="mt-3 text-[13px] text-soft">
          It can be brought back at any time, as it was. Your own rigs, titles, jobs and runs are never touched.
        </p>
      </Panel>
      <Panel title="The store as one file">
        <p className="mb-2">Everything in one file, while the application runs:</p>
        <pre className="figure overflow-x-auto rounded bg-ground p-2 text-[13px]">npm run backup</pre>
        <p className="my-2">And back, with the application stopped; the store before is kept beside it:</p>
        <pre className="figure overflow-x-auto rounded bg-ground p-2 text-[13px]">npm run restore -- FILE</pre>
        <p className="mt-3 text-[13px] text-soft">
          The file is a tar of a description as JSON and a gzipped dump as SQL text: it can be read without this
          application.
        </p>
      </Panel>
    </div>
  );
}
