"use client";
import { KeyHint } from "./KeyHint";
import { isSingle, useKeySettings, type KeyAction } from "./keySettings";
import { OpenSheet } from "./OpenSheet";
import { Switch } from "./Switch";

/** The keys of a page; those pressed by themselves can be changed here, or all be switched off. */
export function KeyList({
  open,
  onOpenChange,
  actions,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  actions: KeyAction[];
}) {
  const { settings, put } = useKeySettings();
  const change = (key: string, to: string) => {
    const { [key]: _before, ...others } = settings.changed;
    put({ ...settings, changed: to === "" || to === key ? others : { ...others, [key]: to } });
  };
  return (
    <OpenSheet open={open} onOpenChange={onOpenChange} title="Keys of this page">
      <div className="mb-3">
        <Switch
          label="keys without Ctrl or Alt"
          checked={!settings.off}
          onChange={(on) => put({ ...settings, off: !on })}
        />
      </div>
      <dl className="grid grid-cols-[auto_1fr_auto] items-center gap-x-4 gap-y-2">
        {actions.map(({ keys, shown, label }) => (
          <div key={keys + label} className="contents">
            <dt className="text-right">
              <KeyHint>{shown}</KeyHint>
            </dt>
            <dd>{label}</dd>
            <dd>
              {isSingle(keys) && !settings.off && (
                <input
                  aria-label={`Key for: ${label}`}
                  value={settings.changed[keys] ?? ""}
                  placeholder={keys}
                  maxLength={1}
                  onChange={(event) => change(keys, event.target.value.trim().toLowerCase())}
                  className="figure w-9 rounded border border-edge bg-ground text-center text-[13px]"
                />
              )}
            </dd>
          </div>
        ))}
        <dt className="text-right">
          <KeyHint>?</KeyHint>
        </dt>
        <dd>this list</dd>
      </dl>
    </OpenSheet>
  );
}
