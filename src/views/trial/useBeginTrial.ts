"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call, type Refusal } from "@/contract/client";
import { toast } from "@/ui";
import type { Draft } from "@/core/trial";

const asToast = ({ title, fix }: Refusal) => void toast.error(title, { description: fix });

/**
 * Begins a trial of a job and goes there, once at a time. @param onRefused what to do with a refusal; it is
 * shown in passing unless given
 */
export function useBeginTrial(jobId: string, onRefused: (refusal: Refusal) => void = asToast) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const begin = async (draft: Draft) => {
    if (busy) return;
    setBusy(true);
    const sent = await call("addTrial", { body: { ...draft, jobId } });
    setBusy(false);
    if (sent.ok) router.push(`/jobs/${jobId}/trials/${sent.answer.id}`);
    else onRefused(sent.refusal);
  };
  return { begin, busy };
}
