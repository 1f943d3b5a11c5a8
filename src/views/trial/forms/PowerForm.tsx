"use client";
import { useState } from "react";
import { playedAt, powerPlan, type Place } from "@/core/trial";
import { Field, Input } from "@/ui";
import { OfTheRig, PlanFrame, Row, Ticks, Whole, type FormProps } from "./parts";

/** Plans a trial of this kind. */
export function PowerForm(props: FormProps) {
  const { spec, job } = props.view;
  const [modes, setModes] = useState<ReadonlySet<string>>(new Set(spec.powerModes.map(({ name }) => name)));
  const [rounds, setRounds] = useState(2);
  const [elsewhere, setElsewhere] = useState("");
  const watts = elsewhere.trim() === "" ? null : Number(elsewhere.replace(",", "."));
  const wrong = watts !== null && !(watts >= 0 && watts <= 100) ? "0 to 100 W, or empty." : undefined;
  const [where, setWhere] = useState<ReadonlySet<string>>(new Set());
  const draft =
    modes.size * Math.max(1, where.size) >= 2 && !wrong
      ? powerPlan(
          props.view,
          [...modes],
          rounds,
          watts,
          (Object.keys(playedAt) as Place[]).filter((place) => where.has(place)),
        )
      : null;
  const missingModes = (
    <>
      {spec.powerModes.length === 0
        ? `No power modes are written down for ${job.rig}. `
        : `${job.rig} has one power mode only. `}
      <OfTheRig view={props.view} kind="power">
        Add its modes
      </OfTheRig>
    </>
  );
  return (
    <PlanFrame
      {...props}
      draft={draft}
      missing={
        draft
          ? undefined
          : spec.powerModes.length < 2
            ? missingModes
            : !job.rules.mayChange.powerMode
              ? "The house rules of this job don't allow the power mode to be changed."
              : undefined
      }
      cautions
    >
      <Ticks
        label="Power modes"
        options={spec.powerModes.map(({ name, watts: named }) => ({
          value: name,
          label: name,
          note: named === null ? undefined : `${named} W`,
        }))}
        chosen={modes}
        onChange={setModes}
      />
      {spec.batteryWh !== null && (
        <Ticks
          label="Where (none: as it lies now)"
          options={Object.keys(playedAt).map((value) => ({ value, label: value }))}
          chosen={where}
          onChange={setWhere}
        />
      )}
      <Row>
        <Whole label="Runs of each" value={rounds} min={1} max={10} onChange={setRounds} />
        <Field
          label="Screen and the rest, not in the log"
          unit="W"
          error={wrong}
          help="Counts for hours on the battery."
        >
          {(ids) => (
            <Input
              {...ids}
              inputMode="decimal"
              className="max-w-28"
              value={elsewhere}
              onChange={(event) => setElsewhere(event.target.value)}
            />
          )}
        </Field>
      </Row>
    </PlanFrame>
  );
}
