"use client";
import { useRouter } from "next/navigation";
import { Keys } from "@/ui";

export function BenchKeys({ jobId, newRun }: { jobId: string; newRun: string }) {
  const router = useRouter();
  return (
    <Keys
      actions={[
        { keys: "n", shown: "N", label: "bring in a run", run: () => router.push(newRun) },
        {
          keys: "enter",
          shown: "Enter",
          label: "open the job in hand",
          run: () => router.push(`/jobs/${jobId}`),
        },
      ]}
    />
  );
}
