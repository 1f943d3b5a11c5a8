"use client";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Plus } from "lucide-react";
import { call } from "@/contract/client";
import type { CampaignView } from "@/core/records";
import { Button, Field, Input, Sheet, say } from "@/ui";
import { ArmCard, type ArmDraft } from "./ArmCard";
import { freshArm, nameOf } from "./armDrafts";
import { betterOrder } from "./betterOrder";
import { TitlePicker } from "./TitlePicker";

/** Further rounds, titles or arms of a campaign under way; what was run stays. */
export function MoreSheet({
  campaign,
  arms,
  titles: planned,
  open,
  onOpenChange,
  onKept,
}: Pick<CampaignView, "campaign" | "arms" | "titles"> & {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onKept: () => void;
}) {
  const { plan } = campaign;
  const [rounds, setRounds] = useState(String(plan.rounds));
  const [titles, setTitles] = useState<ReadonlyMap<string, readonly string[]>>(new Map());
  const [drafts, setDrafts] = useState<ArmDraft[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const { data: kit } = useQuery({
    queryKey: ["campaign kit"],
    enabled: open,
    queryFn: async () => {
      const sent = await call("viewCampaignKit");
      return sent.ok ? sent.answer : null;
    },
  });
  const named = kit ? drafts.map((arm) => (arm.named ? arm : { ...arm, name: nameOf(arm, kit, drafts) })) : [];
  const places = [...titles].flatMap(([titleId, scenes]) => scenes.map((scene) => ({ titleId, scene })));
  const there = new Map<string, string[]>();
  for (const { titleId, scene } of planned) there.set(titleId, [...(there.get(titleId) ?? []), scene]);
  const wanted = say.typedNumber(rounds);
  const isMore = places.length > 0 || named.length > 0 || wanted > plan.rounds;
  const keep = async () => {
    setBusy(true);
    const sent = await call("growCampaign", {
      id: campaign.id,
      saw: campaign.version,
      body: {
        rounds: wanted,
        titles: places,
        arms: named.map(({ named: _named, ...arm }) => arm),
      },
    });
    if (!sent.ok) {
      setBusy(false);
      return setProblem(`${sent.refusal.title} ${sent.refusal.fix}`);
    }
    await betterOrder(campaign.id);
    setBusy(false);
    onOpenChange(false);
    onKept();
  };
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title="More of it">
      <p className="mb-3 text-[13px] text-soft">
        Runs that were made stay; what is left is put in order anew. It has {say.count(plan.rounds, "round")} of{" "}
        {say.count(arms.length, "arm")}.
      </p>
      <div className="grid gap-4">
        <Field label="Rounds" help="No fewer than there are.">
          {(ids) => (
            <Input
              {...ids}
              inputMode="numeric"
              className="max-w-28"
              value={rounds}
              onChange={(event) => setRounds(event.target.value)}
            />
          )}
        </Field>
        {kit && (
          <>
            <section aria-label="Further titles">
              <h3 className="mb-1 text-[13px] font-semibold">Further titles</h3>
              <TitlePicker systems={kit.systems} there={there} chosen={titles} onChange={setTitles} />
            </section>
            <section aria-label="Further arms" className="grid gap-2">
              <h3 className="text-[13px] font-semibold">Further arms</h3>
              {named.map((arm, place) => (
                <ArmCard
                  key={place}
                  kit={kit}
                  arm={arm}
                  place={arms.length + place}
                  error={() => undefined}
                  onChange={(changed) => setDrafts(drafts.map((each, at) => (at === place ? changed : each)))}
                  onRemove={() => setDrafts(drafts.filter((_, at) => at !== place))}
                />
              ))}
              <Button
                className="justify-self-start"
                onClick={() => setDrafts([...drafts, freshArm(arms[0]?.rigId ?? "")])}
              >
                <Plus size={14} aria-hidden />
                Arm
              </Button>
            </section>
          </>
        )}
        {problem && (
          <p role="alert" className="text-[13px] text-caution">
            {problem}
          </p>
        )}
        <Button
          look="lit"
          className="justify-self-start"
          disabled={busy || !isMore}
          onClick={() => void keep()}
        >
          {busy ? "Putting the runs in order …" : "Add it"}
        </Button>
      </div>
    </Sheet>
  );
}
