"use client";
import { useState } from "react";
import { call } from "@/contract/client";
import type { CampaignRow } from "@/core/records";
import { Button, Field, Input, Sheet, say, toast } from "@/ui";

/** When a campaign's evenings are, how long, and how its devices are charged. */
export function EveningsSheet({
  campaign,
  open,
  onOpenChange,
  onKept,
}: {
  campaign: CampaignRow;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onKept: () => void;
}) {
  const { plan } = campaign;
  const [day, setDay] = useState(plan.firstEvening ?? "");
  const [startsAt, setStartsAt] = useState(plan.startsAt);
  const [minutes, setMinutes] = useState(plan.eveningMin === null ? "" : String(plan.eveningMin));
  const [watts, setWatts] = useState(plan.chargeWatts === null ? "" : String(plan.chargeWatts));
  const [fields, setFields] = useState<Record<string, string>>({});
  const keep = async () => {
    const figure = (text: string) => (text.trim() === "" ? null : say.typedNumber(text));
    const sent = await call("changeCampaign", {
      id: campaign.id,
      saw: campaign.version,
      body: {
        firstEvening: day === "" ? null : day,
        startsAt,
        eveningMin: figure(minutes),
        chargeWatts: figure(watts),
      },
    });
    if (sent.ok) {
      setFields({});
      onOpenChange(false);
      onKept();
    } else {
      setFields(sent.refusal.fields);
      toast.error(sent.refusal.title, { description: sent.refusal.fix });
    }
  };
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title="Evenings">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <div className="grid grid-cols-2 gap-4">
          <Field label="First evening" help="Empty: in one go." error={fields.firstEvening}>
            {(ids) => (
              <Input {...ids} type="date" value={day} onChange={(event) => setDay(event.target.value)} />
            )}
          </Field>
          <Field label="Begins at" error={fields.startsAt}>
            {(ids) => (
              <Input
                {...ids}
                type="time"
                value={startsAt}
                onChange={(event) => setStartsAt(event.target.value)}
              />
            )}
          </Field>
          <Field label="Length" unit="min" help="Empty: as long as it takes." error={fields.eveningMin}>
            {(ids) => (
              <Input
                {...ids}
                inputMode="decimal"
                value={minutes}
                onChange={(event) => setMinutes(event.target.value)}
              />
            )}
          </Field>
          <Field
            label="Charger gives"
            unit="W"
            help="Empty: charging isn't planned."
            error={fields.chargeWatts}
          >
            {(ids) => (
              <Input
                {...ids}
                inputMode="decimal"
                value={watts}
                onChange={(event) => setWatts(event.target.value)}
              />
            )}
          </Field>
        </div>
        <p className="text-[12px] text-soft">
          An evening that has passed is made up for: what is left is planned from today on.
        </p>
        <Button type="submit" look="lit" className="justify-self-start">
          Keep the evenings
        </Button>
      </form>
    </Sheet>
  );
}
