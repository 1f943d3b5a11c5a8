"use client";
import { useState } from "react";
import { call } from "@/contract/client";
import { answersForAll, roundStates, slotAnswers, type SlotAnswer, titleInPlan } from "@/core/campaign";
import type { CampaignView } from "@/core/records";
import { Button, Field, Input, Sheet, toast } from "@/ui";
import type { CellPlace } from "./Winners";

const meaning: Record<SlotAnswer, string> = {
  "won't start": "Dark in every round",
  crashed: "this round; it counts as a crash",
  skipped: "this round; nothing is said",
  "not for this engine": "every round; the arm isn't judged by it",
};

/** Answers a cell without a run, or takes back what was answered. */
export function AnswerSheet({
  view,
  cell,
  onClose,
  onAnswered,
}: {
  view: CampaignView;
  cell: CellPlace;
  onClose: () => void;
  onAnswered: () => void;
}) {
  const [note, setNote] = useState("");
  const { campaign, titles, arms, facts, answers } = view;
  const facted = facts.titles[cell.title];
  const own = facted?.cells[cell.arm];
  if (!facted || !own) return null;
  const round = roundStates(own, facts.rounds + facted.extra).indexOf("open") + 1;
  const given = answers.filter(({ title, arm }) => title === cell.title && arm === cell.arm);
  const put = async (answer: SlotAnswer | null, at: number) => {
    const sent = await call("answerRun", { id: campaign.id, body: { ...cell, round: at, answer, note } });
    if (sent.ok) onAnswered();
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
  };
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title={`${titleInPlan(titles[cell.title])} with ${arms[cell.arm]?.name ?? ""}`}
    >
      {round > 0 ? (
        <>
          <p className="mb-3 text-[13px] text-soft">Round {round}, without a run:</p>
          <Field label="What happened" help="Kept with the answer; may stay empty.">
            {(ids) => (
              <Input {...ids} value={note} maxLength={400} onChange={(event) => setNote(event.target.value)} />
            )}
          </Field>
          <div className="mt-3 grid gap-2">
            {slotAnswers.map((answer) => (
              <div key={answer} className="flex items-center gap-3">
                <Button className="w-44" onClick={() => void put(answer, round)}>
                  {answer}
                </Button>
                <span className="text-[13px] text-soft">{meaning[answer]}</span>
              </div>
            ))}
          </div>
        </>
      ) : (
        <p className="text-soft">Every round of it has an answer.</p>
      )}
      {given.length > 0 && (
        <ul className="mt-4 grid gap-2 border-t border-line pt-3 text-[13px]">
          {given.map(({ round: at, answer, note: told }) => (
            <li key={at} className="flex items-center gap-3">
              <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
                {answersForAll.includes(answer) ? "Every round" : `Round ${at}`}: {answer}
                {told && <span className="text-soft">, {told}</span>}
              </span>
              <Button look="quiet" onClick={() => void put(null, at)}>
                Take back
              </Button>
            </li>
          ))}
        </ul>
      )}
    </Sheet>
  );
}
