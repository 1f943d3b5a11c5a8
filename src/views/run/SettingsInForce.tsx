import { changesBetween, defaultsOf, type Setting, type Settings, type SettingValue } from "@/core/kit";
import { Choice, Field, Input, Switch } from "@/ui";

/** The settings in force for a run, from the engine's catalogue; what differs from the default is marked. */
export function SettingsInForce({
  catalogue,
  settings,
  onChange,
}: {
  catalogue: Setting[];
  settings: Settings;
  onChange: (settings: Settings) => void;
}) {
  if (catalogue.length === 0)
    return <p className="text-[13px] text-soft">This engine has no settings catalogue yet.</p>;
  const changed = new Set(changesBetween(defaultsOf(catalogue), settings).map(({ key }) => key));
  const put = (key: string, value: SettingValue) => onChange({ ...settings, [key]: value });
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-3">
      {catalogue.map((setting) => {
        const value = settings[setting.key] ?? setting.default;
        const label = changed.has(setting.key) ? `${setting.label} *` : setting.label;
        if (setting.type === "switch")
          return (
            <div key={setting.key} className="self-center">
              <Switch label={label} checked={value === true} onChange={(on) => put(setting.key, on)} />
            </div>
          );
        if (setting.type === "choice")
          return (
            <Field key={setting.key} label={label}>
              {({ id }) => (
                <Choice
                  id={id}
                  label={setting.label}
                  value={String(value)}
                  options={setting.choices.map((choice) => ({ value: choice, label: choice }))}
                  onChange={(choice) => put(setting.key, choice)}
                />
              )}
            </Field>
          );
        if (setting.type === "number") {
          return (
            <Field key={setting.key} label={label}>
              {(ids) => (
                <Input
                  {...ids}
                  type="number"
                  value={String(value)}
                  min={setting.min ?? undefined}
                  max={setting.max ?? undefined}
                  step={setting.step ?? "any"}
                  onChange={(event) =>
                    event.target.value !== "" && put(setting.key, Number(event.target.value))
                  }
                />
              )}
            </Field>
          );
        }
        return (
          <Field key={setting.key} label={label}>
            {(ids) => (
              <Input
                {...ids}
                value={String(value)}
                maxLength={200}
                onChange={(event) => put(setting.key, event.target.value)}
              />
            )}
          </Field>
        );
      })}
    </div>
  );
}
