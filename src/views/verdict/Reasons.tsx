import { Check, Minus, X } from "lucide-react";
import type { Verdict } from "@/core/verdict";
import { reasonWords } from "@/core/words";

/** The rules that decided a verdict, with their figures. */
export function Reasons({ verdict }: { verdict: Verdict }) {
  return (
    <ul className="space-y-1.5">
      {verdict.reasons.map((reason) => {
        const Mark = reason.value === null ? Minus : reason.met ? Check : X;
        return (
          <li key={reason.rule} className="flex gap-2 text-[13px]">
            <Mark size={15} aria-hidden className="mt-0.5 shrink-0 text-soft" />
            <span>{reasonWords(reason)}</span>
          </li>
        );
      })}
    </ul>
  );
}
