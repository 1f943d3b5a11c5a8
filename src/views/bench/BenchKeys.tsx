"use client";
import { useRouter } from "next/navigation";
import { Keys } from "@/ui";

export function BenchKeys({ jobId }: { jobId: string }) {
  const router = useRouter();
  return (
    <Keys
      actions={[
        { keys: "n", shown: "N", label: "bring in a run", run: () => router.push(`/jobs/${jobId}/runs/new`) },
        { keys: "enter", shown: "Enter", label: "open the job in hand", run: () => router.push(`/jobs/${jobId}`) },
      ]}
    />
  );
}
