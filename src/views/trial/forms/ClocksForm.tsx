"use client";
import { useState } from "react";
import { crashRate } from "@/core/sweep";
import { clocksPlan } from "@/core/trial";
import { OfTheRig, PlanFrame, Ticks, Whole, type FormProps } from "./parts";

/** Plans a trial of this kind. */
export function ClocksForm(props: FormProps) {
  const { spec, job } = props.view;
  const [options, setOptions] = useState<ReadonlySet<string>>(new Set(spec.clockOptions));
  const [soak, setSoak] = useState(10);
  const draft =
    options.size >= 1 && job.rules.mayChange.clocks ? clocksPlan(props.view, [...options], soak) : null;
  const missing =
    spec.clockOptions.length === 0 ? (
      <>
        {job.rig} has no clock options written down.{" "}
        <OfTheRig view={props.view} kind="clocks">
          Add them, the quietest first
        </OfTheRig>
      </>
    ) : !job.rules.mayChange.clocks ? (
      "The house rules of this job don't allow clocks to be changed. “As far as it goes” does."
    ) : undefined;
  return (
    <PlanFrame {...props} draft={missing ? null : draft} missing={missing} cautions>
      <Ticks
        label="Steps, from the bottom"
        options={spec.clockOptions.map((value) => ({ value, label: value }))}
        chosen={options}
        onChange={setOptions}
      />
      <Whole
        label="Soak"
        unit="min"
        value={soak}
        min={1}
        max={240}
        onChange={setSoak}
        help={`Confirmed at twice the soak: clean for ${2 * soak} min rules out more than ${crashRate(0, (2 * soak) / 60).ruledOutAbove.toFixed(1)} crashes an hour.`}
      />
    </PlanFrame>
  );
}
