"use client";
import { useState } from "react";
import { heatPlan } from "@/core/trial";
import { Switch } from "@/ui";
import { PlanFrame, Row, Whole, type FormProps } from "./parts";

/** Plans a trial of this kind. */
export function HeatForm(props: FormProps) {
  const { spec } = props.view;
  const [minutes, setMinutes] = useState(12);
  const [cooler, setCooler] = useState(spec.cooling.coolerToHand);
  return (
    <PlanFrame {...props} draft={heatPlan(props.view, minutes, cooler)} cautions>
      <Row>
        <Whole
          label="Minutes of a run"
          unit="min"
          value={minutes}
          min={2}
          max={120}
          onChange={setMinutes}
          help="Long enough to settle: three of its time constants show 95 % of the way."
        />
        {spec.cooling.coolerToHand && (
          <span className="pt-7">
            <Switch label="with and without the cooler" checked={cooler} onChange={setCooler} />
          </span>
        )}
      </Row>
      {spec.temperatureLimitC === null && (
        <p className="text-[13px] text-caution">
          The rig has no temperature limit written down; add the maker&apos;s figure in Kit to be told of
          throttling.
        </p>
      )}
    </PlanFrame>
  );
}
