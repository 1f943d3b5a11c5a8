"use client";
import { useState } from "react";
import { memoryPlan } from "@/core/trial";
import { PlanFrame, Whole, type FormProps } from "./parts";

/** Plans a trial of this kind. */
export function MemoryForm(props: FormProps) {
  const [minutes, setMinutes] = useState(15);
  return (
    <PlanFrame {...props} draft={memoryPlan(props.view, minutes)}>
      <Whole
        label="Minutes of the run"
        unit="min"
        value={minutes}
        min={2}
        max={240}
        onChange={setMinutes}
        help="Walk on as players do; let it crash if it will, and mark the run so."
      />
    </PlanFrame>
  );
}
