import { Checkbox } from "radix-ui";
import { Check } from "lucide-react";
import type { ReactNode } from "react";
import { heatCautions } from "@/core/advise";
import type { PlanView, Refusal } from "@/contract";
import { kindOf, planMinutes, type Draft } from "@/core/trial";
import { words } from "@/core/words";
import { Button, Field, Input, Panel, buttonLook, say, toggled, Link } from "@/ui";

export interface FormProps {
  view: PlanView;
  busy: boolean;
  refusal: Refusal | null;
  onBegin: (draft: Draft) => Promise<void>;
}

/** Minutes as a tuner plans them. @example minutesWords(1.4) // → "84 s" */
const minutesWords = (minutes: number) =>
  minutes < 2 ? `${Math.round(60 * minutes)} s` : `${say.number(minutes, minutes < 10 ? 1 : 0)} min`;

/** The plan's foot: what it comes to, what forbids it, and the one button. */
export function Foot({
  view,
  draft,
  busy,
  refusal,
  onBegin,
  missing,
}: FormProps & { draft: Draft | null; missing?: ReactNode }) {
  return (
    <div className="mt-4 grid gap-3">
      {draft && (
        <p className="text-[13px] text-soft">
          {kindOf(draft.kind).runs(draft) < draft.arms.length
            ? "One uncapped run decides; the capped arms can be run to confirm."
            : `${say.count(draft.arms.length * draft.rounds, "run")} in turns: ${draft.arms
                .slice(0, 8)
                .map(({ name }) => name)
                .join(", ")}${draft.arms.length > 8 ? " …" : ""}.`}{" "}
          About{" "}
          <span className="figure text-text">
            {minutesWords(planMinutes(draft, { ...view, settings: view.standing.settings }))}
          </span>
          ; leave it and take it up again as you like.
        </p>
      )}
      {missing && <p className="rounded-md border border-line p-3 text-soft">{missing}</p>}
      {refusal && (
        <p role="alert" className="rounded-md border border-caution p-3">
          <b>{refusal.title}</b> {refusal.fix}
        </p>
      )}
      <div className="flex gap-3">
        <Button type="submit" look="lit" disabled={busy || !draft} onClick={() => draft && void onBegin(draft)}>
          Begin
        </Button>
        <Link href={`/jobs/${view.job.id}`} className={buttonLook("quiet")}>
          Back
        </Link>
      </div>
    </div>
  );
}

/** What is round every form that plans a trial: what it asks, the cautions where it drives a device, and the foot. */
export function PlanFrame({
  cautions = false,
  children,
  ...foot
}: Parameters<typeof Foot>[0] & { cautions?: boolean; children?: ReactNode }) {
  return (
    <Panel>
      {children && (
        <div className="grid gap-4">
          {children}
          {cautions && <Cautions />}
        </div>
      )}
      <Foot {...foot} />
    </Panel>
  );
}

/** What a form misses of the rig, as a link that comes back to it. */
export function OfTheRig({
  view: { job },
  kind,
  children,
}: {
  view: PlanView;
  kind: string;
  children: ReactNode;
}) {
  const back = `/jobs/${job.id}/trials/new?kind=${kind}`;
  return (
    <Link
      href={`/kit/rigs/${job.rigId}?${new URLSearchParams({ back })}`}
      className="underline underline-offset-4"
    >
      {children}
    </Link>
  );
}

export function Ticks({
  label,
  options,
  chosen,
  onChange,
}: {
  label: string;
  options: { value: string; label: string; note?: string }[];
  chosen: ReadonlySet<string>;
  onChange: (chosen: ReadonlySet<string>) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-[13px] text-soft">{label}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-2">
        {options.map(({ value, label: name, note }) => (
          <span key={value} className="inline-flex items-center gap-2 text-[13px]">
            <Checkbox.Root
              id={`tick-${label}-${value}`}
              checked={chosen.has(value)}
              onCheckedChange={() => onChange(toggled(chosen, value))}
              className="grid h-4.5 w-4.5 place-items-center rounded border border-edge bg-ground data-[state=checked]:bg-lit data-[state=checked]:text-on-lit"
            >
              <Checkbox.Indicator>
                <Check size={13} aria-hidden />
              </Checkbox.Indicator>
            </Checkbox.Root>
            <label htmlFor={`tick-${label}-${value}`}>
              {name}
              {note && <span className="ml-1 text-soft">{note}</span>}
            </label>
          </span>
        ))}
      </div>
    </fieldset>
  );
}

export function Whole({
  label,
  unit,
  value,
  min,
  max,
  onChange,
  help,
}: {
  label: string;
  unit?: string;
  value: number;
  min: number;
  max: number;
  onChange: (value: number) => void;
  help?: string;
}) {
  return (
    <Field label={label} unit={unit} help={help}>
      {(ids) => (
        <Input
          {...ids}
          type="number"
          className="max-w-28"
          min={min}
          max={max}
          value={String(value)}
          onChange={(event) => {
            const next = Number(event.target.value);
            if (next >= min && next <= max) onChange(next);
          }}
        />
      )}
    </Field>
  );
}

export const Row = ({ children }: { children: ReactNode }) => (
  <div className="flex flex-wrap items-start gap-6">{children}</div>
);

export function Cautions() {
  return (
    <ul className="list-disc space-y-1 rounded-md border border-caution p-3 pl-7 text-[12px]">
      {[
        ...heatCautions.map(words),
        "This tool plans and records. It never changes a clock, a voltage or a mode: you do, by your maker's own means.",
      ].map((note) => (
        <li key={note}>{note}</li>
      ))}
    </ul>
  );
}
