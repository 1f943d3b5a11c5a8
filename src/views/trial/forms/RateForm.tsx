"use client";
import { useState } from "react";
import { settingFor } from "@/core/kit";
import { ratePlan } from "@/core/trial";
import { Switch, say } from "@/ui";
import { PlanFrame, type FormProps } from "./parts";

/** Plans a trial of this kind. */
export function RateForm(props: FormProps) {
  const { catalogue, job } = props.view;
  const limiter = settingFor(catalogue, "limiter");
  const clock = settingFor(catalogue, "emulated clock");
  const [driven, setDriven] = useState(false);
  return (
    <PlanFrame {...props} draft={ratePlan(props.view, driven)}>
      <div className="grid gap-3 text-[13px]">
        {job.tied ? (
          <p>
            {job.title}&apos;s speed is tied to its rate: it is never capped below{" "}
            {say.number(job.nativeFps, 2)} fps, which would be slow motion.
          </p>
        ) : (
          <p>
            {job.title} is free of its rate: the highest rate that 99 % of windows hold, on an even cadence of
            the display, is recommended.
          </p>
        )}
        {limiter ? (
          <p className="text-soft">
            Kept by {limiter.label}
            {limiter.countsDouble ? ", which counts double: 120 gives 60" : ""}.
          </p>
        ) : (
          <p className="text-caution">
            The engine&apos;s catalogue has no rate limiter, so the rate can be recommended but not written into
            the profile.
          </p>
        )}
        {clock && (
          <Switch
            label={`also overdrive ${clock.label.toLowerCase()} to 130 %, to see which scenes it lifts and which it speeds up`}
            checked={driven}
            onChange={setDriven}
          />
        )}
      </div>
    </PlanFrame>
  );
}
