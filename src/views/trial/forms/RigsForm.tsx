"use client";
import { useQuery } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import { mostCampaignArms, rigsPlan } from "@/core/campaign";
import { Button, Link, say, toast, buttonLook } from "@/ui";
import { betterOrder } from "@/views/campaign/betterOrder";
import { Row, Ticks, Whole, type FormProps } from "./parts";

/** The same title and build on other rigs beside the job's own, planned in place as a campaign of one title. */
export function RigsForm({ view: { job } }: Pick<FormProps, "view">) {
  const router = useRouter();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [rounds, setRounds] = useState(3);
  const [busy, setBusy] = useState(false);
  const { data: kit } = useQuery({
    queryKey: ["campaign kit"],
    queryFn: async () => {
      const sent = await call("viewCampaignKit");
      return sent.ok ? sent.answer : null;
    },
  });
  const rigs = (kit?.rigs ?? []).filter(({ id }) => id !== job.rigId);
  const others = rigs.filter(({ id }) => ticked.has(id));
  const begin = async () => {
    setBusy(true);
    const made = await call("addCampaign", { body: rigsPlan(job, others, rounds) });
    if (!made.ok) {
      setBusy(false);
      toast.error(made.refusal.title, { description: made.refusal.fix });
      return;
    }
    await betterOrder(made.answer.id);
    router.push(`/campaigns/${made.answer.id}`);
  };
  if (kit && rigs.length === 0)
    return (
      <p className="text-[13px] text-soft">
        There is no other rig.{" "}
        <Link href="/kit/rigs/new" className="underline">
          Add one
        </Link>{" "}
        first.
      </p>
    );
  return (
    <div className="grid gap-4">
      <p className="text-[13px] text-soft">
        As it is now: <b className="text-text">{job.rig}</b>. Each rig that is ticked runs {job.title} with{" "}
        {job.engine} {job.build} and the profile it has there. Runs on another rig are a job of their own: a
        campaign of this title holds them and says which rig is faster.
      </p>
      <Ticks
        label="Other rigs"
        options={rigs.map(({ id, name }) => ({ value: id, label: name }))}
        chosen={ticked}
        onChange={setTicked}
      />
      <Row>
        <Whole label="Runs of each" value={rounds} min={1} max={12} onChange={setRounds} />
      </Row>
      <p className="text-[13px] text-soft">
        {others.length === 0
          ? "Tick one rig at least."
          : others.length >= mostCampaignArms
            ? `At most ${mostCampaignArms} rigs are compared at once.`
            : `${say.count((others.length + 1) * rounds, "run")}; the campaign shows what they take.`}
      </p>
      <div className="flex gap-3">
        <Button
          look="lit"
          disabled={busy || others.length === 0 || others.length >= mostCampaignArms}
          onClick={() => void begin()}
        >
          Begin the campaign
        </Button>
        <Link href={`/jobs/${job.id}`} className={buttonLook("quiet")}>
          Back
        </Link>
      </div>
    </div>
  );
}
