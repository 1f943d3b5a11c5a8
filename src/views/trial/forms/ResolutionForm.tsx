"use client";
import { useState } from "react";
import { settingFor } from "@/core/kit";
import { likelyScale, resolutionPlan, usualScales } from "@/core/trial";
import { Switch } from "@/ui";
import { Foot, PlanFrame, Row, Ticks, Whole, type FormProps } from "./parts";

/** Plans a trial of this kind. */
export function ResolutionForm(props: FormProps) {
  const { catalogue, usefulScale, byEye } = props.view;
  const scale = settingFor(catalogue, "scale"),
    hold = settingFor(catalogue, "hold rate");
  const [levels, setLevels] = useState<ReadonlySet<string>>(
    new Set(
      scale ? (byEye ? [likelyScale(scale, usefulScale)] : usualScales(scale, usefulScale)).map(String) : [],
    ),
  );
  // By eye one level leads to the next: halfway between what holds and what doesn't.
  const leastLevels = byEye ? 1 : 2;
  const [rounds, setRounds] = useState(1);
  const [lifted, setLifted] = useState(true);
  if (!scale)
    return (
      <Foot
        {...props}
        draft={null}
        missing="The engine's catalogue has no scale setting: mark the one that is for the scale in Kit."
      />
    );
  const most = Math.min(scale.max ?? 10, 16),
    step = scale.step ?? 1,
    least = Math.max(scale.min ?? 1, step);
  const offered = Array.from({ length: Math.round((most - least) / step) + 1 }, (_, k) => least + k * step);
  const draft =
    levels.size >= leastLevels
      ? resolutionPlan(props.view, [...levels].map(Number), rounds, lifted && hold !== null)
      : null;
  return (
    <PlanFrame
      {...props}
      draft={draft}
      missing={
        levels.size < leastLevels ? (byEye ? "Choose a level." : "Choose two levels at least.") : undefined
      }
    >
      <Ticks
        label={`${scale.label}: levels`}
        options={offered.map((level) => ({
          value: String(level),
          label: `×${level}`,
          note: level === usefulScale ? "useful" : undefined,
        }))}
        chosen={levels}
        onChange={setLevels}
      />
      <Row>
        <Whole label="Runs of each" value={rounds} min={1} max={10} onChange={setRounds} />
        {hold && (
          <span className="pt-7">
            <Switch label={`${hold.label}: off for the sweep`} checked={lifted} onChange={setLifted} />
          </span>
        )}
      </Row>
      <p className="text-[13px] text-soft">
        {byEye
          ? "Begin where it most likely ends, at the scale that the screen can show; every look says which to try next."
          : "Three levels tell the flat part from the slope; after three, the level that would settle it is proposed. An uncapped sweep gives the sharper law."}
      </p>
    </PlanFrame>
  );
}
