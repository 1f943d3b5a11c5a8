import type { Setting, SettingValue } from "@/core/kit";
import { ChoiceField, Field, Input, Switch } from "@/ui";

/** One value of a setting, entered as its type asks, with what to mind beside it. */
export function SettingField({
  setting,
  label = setting.label,
  value,
  onChange,
}: {
  setting: Setting;
  label?: string;
  value: SettingValue;
  onChange: (value: SettingValue) => void;
}) {
  const { caution = "" } = setting;
  if (setting.type === "switch")
    return (
      <div className="self-center">
        <Switch label={label} checked={value === true} onChange={onChange} />
        {caution !== "" && <p className="mt-1 text-[12px] text-caution">{caution}</p>}
      </div>
    );
  return (
    <Field label={label} help={caution === "" ? undefined : <span className="text-caution">{caution}</span>}>
      {(ids) =>
        setting.type === "choice" ? (
          <ChoiceField
            id={ids.id}
            label={setting.label}
            value={String(value)}
            options={setting.choices.map((choice) => ({ value: choice, label: choice }))}
            onChange={onChange}
          />
        ) : setting.type === "number" ? (
          <Input
            {...ids}
            type="number"
            value={String(value)}
            min={setting.min ?? undefined}
            max={setting.max ?? undefined}
            step={setting.step ?? "any"}
            onChange={(event) => event.target.value !== "" && onChange(Number(event.target.value))}
          />
        ) : (
          <Input
            {...ids}
            value={String(value)}
            maxLength={200}
            onChange={(event) => onChange(event.target.value)}
          />
        )
      }
    </Field>
  );
}
