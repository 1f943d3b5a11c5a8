"use client";
import { useRouter } from "next/navigation";
import { Tabs } from "radix-ui";
import { useState } from "react";
import type { Refusal, PlanView } from "@/contract";
import { kindOf, trialKinds } from "@/core/trial";
import { Keys, Link } from "@/ui";
import { PlanForm } from "./forms";
import { useBeginTrial } from "./useBeginTrial";

/** Plans a trial or a sweep of a job: what is compared, how often, and what it takes. */
export function PlanPage(view: PlanView & { asked: string | null }) {
  const { job, asked } = view;
  const router = useRouter();
  const [kind, setKind] = useState(trialKinds.find((each) => each === asked) ?? "compare");
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const back = `/jobs/${job.id}`;
  const { begin, busy } = useBeginTrial(job.id, setRefusal);
  return (
    <div className="mx-auto max-w-4xl p-5">
      <Keys
        actions={[{ keys: "escape", shown: "Esc", label: "back to the job", run: () => router.push(back) }]}
      />
      <header className="mb-3">
        <h1 className="text-xl font-semibold">New trial</h1>
        <p className="text-soft">
          <Link href={back} className="underline decoration-line underline-offset-4">
            {job.title}
          </Link>
          , {job.engine} {job.build} on {job.rig}; {job.houseRules}
        </p>
      </header>
      <Tabs.Root
        value={kind}
        onValueChange={(value) => {
          setKind(value);
          setRefusal(null);
        }}
      >
        <Tabs.List aria-label="What is tried" className="mb-4 flex flex-wrap gap-1 border-b border-line">
          {trialKinds.map((value) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="-mb-px border-b-2 border-transparent px-3 py-2 text-soft data-[state=active]:border-lit data-[state=active]:text-text"
            >
              {kindOf(value).name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <p className="mb-3 text-soft">{kindOf(kind).question}</p>
        {trialKinds.map((value) => (
          <Tabs.Content key={value} value={value}>
            <PlanForm kind={value} view={view} busy={busy} refusal={refusal} onBegin={begin} />
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </div>
  );
}
