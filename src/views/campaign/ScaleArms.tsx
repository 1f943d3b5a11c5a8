import { useState } from "react";
import { scaleArms, type CampaignArm } from "@/core/campaign";
import { settingFor } from "@/core/kit";
import type { CampaignKitView } from "@/core/records";
import { Button, Field, Input, say } from "@/ui";
import { useEngine } from "./useEngine";

/** Arms of every scale in every mode at once, of the rig and engine that the first arm names. */
export function ScaleArms({
  kit,
  base,
  onArms,
}: {
  kit: CampaignKitView;
  base: CampaignArm;
  onArms: (arms: CampaignArm[]) => void;
}) {
  const rig = kit.rigs.find(({ id }) => id === base.rigId);
  const engineId = kit.builds.find(({ id }) => id === base.buildId)?.engineId;
  const engine = useEngine(engineId);
  const [scales, setScales] = useState("3, 2, 1");
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  const scale = engine ? settingFor(engine.catalogue, "scale") : null;
  const modes = rig?.spec.powerModes ?? [];
  if (!engineId)
    return (
      <p className="mb-3 text-[13px] text-soft">
        Name the first arm&apos;s engine, and its scales and modes become arms.
      </p>
    );
  if (engine && !scale)
    return (
      <p className="mb-3 text-[13px] text-soft">
        {engine.name} has no setting that is for the scale; say in Kit which it is.
      </p>
    );
  const make = () => {
    const wanted = scales
      .split(/[,;\s]+/)
      .filter(Boolean)
      .map(say.typedNumber);
    const bad = wanted.some((each) => !(each > 0));
    if (!scale || bad) return setProblem("Scales are numbers above 0, separated by commas.");
    try {
      onArms(
        scaleArms(
          { ...base, conditions: {}, settings: {} },
          scale.key,
          wanted,
          modes.filter(({ name }) => !left.has(name)),
        ),
      );
      setProblem(null);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <div className="mb-3 flex flex-wrap items-end gap-4 text-[13px]">
      <div className="w-44">
        <Field label="Scales" error={problem ?? undefined}>
          {(ids) => (
            <Input {...ids} value={scales} maxLength={60} onChange={(event) => setScales(event.target.value)} />
          )}
        </Field>
      </div>
      {modes.length > 0 && (
        <fieldset className="flex flex-wrap gap-3 pb-2">
          <legend className="mb-1 text-soft">In the modes</legend>
          {modes.map(({ name, watts }) => (
            <label key={name} className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-(--lit)"
                checked={!left.has(name)}
                onChange={({ target }) => {
                  const now = new Set(left);
                  if (target.checked) now.delete(name);
                  else now.add(name);
                  setLeft(now);
                }}
              />
              {name}
              {watts !== null && <span className="figure text-soft">{watts} W</span>}
            </label>
          ))}
        </fieldset>
      )}
      <Button className="mb-1" onClick={make}>
        Make these the arms
      </Button>
    </div>
  );
}
