"use client";
import { X } from "lucide-react";
import type { CampaignArm } from "@/core/campaign";
import type { CampaignKitView } from "@/core/records";
import { Button, ChoiceField, Field, Input, SearchChoice } from "@/ui";
import { SettingField } from "@/views/setting";
import { useEngine } from "./useEngine";

/** An arm as it is planned; its name is made of what it is while none is typed. */
export interface ArmDraft extends CampaignArm {
  named: boolean;
}

/** One way to run every title. */
export function ArmCard({
  kit,
  arm,
  place,
  error,
  onChange,
  onRemove,
}: {
  kit: CampaignKitView;
  arm: ArmDraft;
  place: number;
  error: (field: string) => string | undefined;
  onChange: (arm: ArmDraft) => void;
  onRemove: (() => void) | null;
}) {
  const rig = kit.rigs.find(({ id }) => id === arm.rigId);
  const build = kit.builds.find(({ id }) => id === arm.buildId);
  const engineId = build?.engineId;
  const engine = useEngine(engineId);
  const set = (changed: Partial<ArmDraft>) => onChange({ ...arm, ...changed });
  const condition = (key: "powerMode" | "clocks" | "setUp", value: string) =>
    set({ conditions: { ...arm.conditions, [key]: value === "as it is" ? undefined : value } });
  const choices = (names: string[]) => [
    { value: "as it is", label: "as on the bench" },
    ...names.map((name) => ({ value: name, label: name })),
  ];
  const catalogue = engine?.catalogue ?? [];
  const own = catalogue.filter(({ key }) => key in arm.settings);
  return (
    <section aria-label={`Arm ${place + 1}`} className="rounded-(--radius-panel) border border-line p-3">
      <div className="grid grid-cols-[repeat(auto-fill,minmax(11rem,1fr))] items-start gap-3">
        <Field label="Arm" error={error("name")}>
          {(ids) => (
            <Input
              {...ids}
              value={arm.name}
              maxLength={80}
              onChange={(event) => set({ name: event.target.value, named: event.target.value !== "" })}
            />
          )}
        </Field>
        <Field label="Rig" error={error("rigId")}>
          {({ id }) => (
            <SearchChoice
              id={id}
              label={`Rig of arm ${place + 1}`}
              value={arm.rigId || null}
              options={kit.rigs.map(({ id: value, name }) => ({ value, label: name }))}
              onChange={(rigId) => set({ rigId, conditions: {} })}
            />
          )}
        </Field>
        <Field label="Engine and build" error={error("buildId")}>
          {({ id }) => (
            <SearchChoice
              id={id}
              label={`Engine of arm ${place + 1}`}
              value={arm.buildId ?? "usual"}
              options={[
                { value: "usual", label: "the usual one", note: "of each system on the rig" },
                ...kit.builds.map(({ id: value, engine: name, version }) => ({
                  value,
                  label: `${name} ${version}`,
                })),
              ]}
              onChange={(value) => set({ buildId: value === "usual" ? null : value, settings: {} })}
            />
          )}
        </Field>
        {rig && rig.spec.powerModes.length > 1 && (
          <Field label="Power mode">
            {({ id }) => (
              <ChoiceField
                id={id}
                label={`Power mode of arm ${place + 1}`}
                value={arm.conditions.powerMode ?? "as it is"}
                options={choices(rig.spec.powerModes.map(({ name }) => name))}
                onChange={(value) => condition("powerMode", value)}
              />
            )}
          </Field>
        )}
        {rig && rig.spec.clockOptions.length > 1 && (
          <Field label="Clocks">
            {({ id }) => (
              <ChoiceField
                id={id}
                label={`Clocks of arm ${place + 1}`}
                value={arm.conditions.clocks ?? "as it is"}
                options={choices(rig.spec.clockOptions)}
                onChange={(value) => condition("clocks", value)}
              />
            )}
          </Field>
        )}
        {rig && (rig.spec.setUps?.length ?? 0) > 0 && (
          <Field label="Set-up">
            {({ id }) => (
              <ChoiceField
                id={id}
                label={`Set-up of arm ${place + 1}`}
                value={arm.conditions.setUp ?? "as it is"}
                options={choices((rig.spec.setUps ?? []).map(({ name }) => name))}
                onChange={(value) => condition("setUp", value)}
              />
            )}
          </Field>
        )}
        <Field label="Settings begin from">
          {({ id }) => (
            <ChoiceField
              id={id}
              label={`Settings of arm ${place + 1} begin from`}
              value={arm.from}
              options={[
                { value: "profile", label: "the profile" },
                { value: "defaults", label: "the engine's defaults" },
              ]}
              onChange={(from) => set({ from: from === "defaults" ? "defaults" : "profile" })}
            />
          )}
        </Field>
      </div>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        {own.map((setting) => (
          <div key={setting.key} className="flex items-end gap-1">
            <SettingField
              setting={setting}
              value={arm.settings[setting.key] ?? setting.default}
              onChange={(value) => set({ settings: { ...arm.settings, [setting.key]: value } })}
            />
            <Button
              look="quiet"
              aria-label={`Leave ${setting.label} as it is`}
              onClick={() => {
                const { [setting.key]: _gone, ...settings } = arm.settings;
                set({ settings });
              }}
            >
              <X size={14} aria-hidden />
            </Button>
          </div>
        ))}
        {catalogue.length > own.length && (
          <ChoiceField
            quiet
            label={`Another setting of arm ${place + 1}`}
            value={null}
            options={catalogue
              .filter(({ key }) => !(key in arm.settings))
              .map(({ key, label }) => ({ value: key, label }))}
            onChange={(key) => {
              const setting = catalogue.find((each) => each.key === key);
              if (setting) set({ settings: { ...arm.settings, [key]: setting.default } });
            }}
          />
        )}
        {onRemove && (
          <Button look="quiet" className="ml-auto" onClick={onRemove}>
            Remove arm {place + 1}
          </Button>
        )}
      </div>
    </section>
  );
}
