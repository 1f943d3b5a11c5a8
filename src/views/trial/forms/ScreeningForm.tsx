"use client";
import { useState } from "react";
import { otherSide, screeningPlan } from "@/core/trial";
import { valueWords } from "@/core/words";
import { PlanFrame, Ticks, type FormProps } from "./parts";

/** Plans a trial of this kind. */
export function ScreeningForm(props: FormProps) {
  const { catalogue, standing } = props.view;
  const possible = catalogue.filter(
    (setting) => otherSide(setting, standing.settings[setting.key] ?? setting.default) !== null,
  );
  const [keys, setKeys] = useState<ReadonlySet<string>>(new Set(possible.slice(0, 7).map(({ key }) => key)));
  const chosen = possible.filter(({ key }) => keys.has(key));
  const draft =
    chosen.length >= 2
      ? screeningPlan(
          props.view,
          chosen.map(({ key }) => key),
        )
      : null;
  return (
    <PlanFrame
      {...props}
      draft={draft}
      missing={
        possible.length < 2
          ? "This engine's catalogue has fewer than two settings with another side."
          : undefined
      }
    >
      <Ticks
        label="Switches"
        options={possible.map((setting) => ({
          value: setting.key,
          label: setting.label,
          note: `${valueWords(standing.settings[setting.key] ?? setting.default)} or ${valueWords(otherSide(setting, standing.settings[setting.key] ?? setting.default))}`,
        }))}
        chosen={keys}
        onChange={setKeys}
      />
      {draft && (
        <p className="mt-3 text-[13px] text-soft">
          A Plackett–Burman design, folded over: {draft.arms.length} runs, the second half with every switch the
          other way round. Each main effect can be read off, free of what pairs of switches do together. The
          first half alone gives leads.
        </p>
      )}
    </PlanFrame>
  );
}
