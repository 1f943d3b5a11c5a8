import dynamic from "next/dynamic";
import { changesBetween, defaultsOf, type Setting, type Settings, type SettingValue } from "@/core/kit";
import { Fragment, useState } from "react";
import { Input, Switch } from "@/ui";
import { SettingField, SoundDelay, SyncSchool } from "@/views/setting";

/** Loaded where an engine has no settings. */
const NoCatalogue = dynamic(async () => (await import("@/views/kit/NoCatalogue")).NoCatalogue);

/** From so many on they are searched, in sections. */
const manySettings = 14;

/** The settings in force for a run, from the engine's catalogue; what differs from the default is marked. */
export function SettingsInForce({
  engineId,
  rigId,
  catalogue,
  settings,
  onChange,
}: {
  engineId: string;
  rigId: string;
  catalogue: Setting[];
  settings: Settings;
  onChange: (settings: Settings) => void;
}) {
  const [wanted, setWanted] = useState("");
  const [onlyChanged, setOnlyChanged] = useState(false);
  if (catalogue.length === 0) return <NoCatalogue engineId={engineId} rigId={rigId} />;
  const many = catalogue.length > manySettings;
  const changed = new Set(changesBetween(defaultsOf(catalogue), settings).map(({ key }) => key));
  const put = (key: string, value: SettingValue) => onChange({ ...settings, [key]: value });
  const shown = catalogue.filter(
    ({ key, label, section }) =>
      (!onlyChanged || changed.has(key)) &&
      `${label} ${key} ${section}`.toLowerCase().includes(wanted.toLowerCase()),
  );
  const sections = [...new Set(shown.map(({ section }) => section))];
  return (
    <div className="grid gap-3">
      {many && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <Input
            type="search"
            aria-label="Search the settings"
            placeholder={`find among ${catalogue.length}`}
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
            className="max-w-44"
          />
          <Switch label="only what differs" checked={onlyChanged} onChange={setOnlyChanged} />
        </div>
      )}
      {many && shown.length === 0 && (
        <p className="text-[13px] text-soft">
          {onlyChanged ? "Nothing differs from the engine’s defaults." : "No setting by that name."}
        </p>
      )}
      {sections.map((section) => (
        <section key={section} className="grid grid-cols-2 gap-x-4 gap-y-3 max-sm:grid-cols-1">
          {many && sections.length > 1 && (
            <h3 className="col-span-full text-[12px] font-semibold text-soft">{section || "No section"}</h3>
          )}
          {shown
            .filter((setting) => setting.section === section)
            .map((setting) => {
              const { key, label, default: own } = setting;
              const queued = setting.purpose === "sound queue" ? Number(settings[key] ?? own) : Number.NaN;
              return (
                <Fragment key={key}>
                  <SettingField
                    setting={setting}
                    label={changed.has(key) ? `${label} *` : label}
                    value={settings[key] ?? own}
                    onChange={(value) => put(key, value)}
                  />
                  {Number.isFinite(queued) && <SoundDelay label={label} value={queued} />}
                  {setting.purpose === "sound sync" && (
                    <SyncSchool label={label} on={(settings[key] ?? own) === true} />
                  )}
                </Fragment>
              );
            })}
        </section>
      ))}
    </div>
  );
}
