import { useState } from "react";
import type { SettingValue } from "@/core/kit";
import { besideKeys } from "@/core/profile";
import type { ProfileView } from "@/contract";
import { Button, Sheet, Switch } from "@/ui";
import { SettingField } from "@/views/setting";
import type { LayerCell } from "./place";

const layerWords = {
  rig: "everything on this rig",
  system: "this system on this rig",
  title: "this title on this rig",
} as const;

/** Sets one value in one layer; what is set by hand is untested until a trial says otherwise. */
export function CellSheet({
  view,
  cell: { key, layer },
  onClose,
  onSet,
}: {
  view: ProfileView;
  cell: LayerCell;
  onClose: () => void;
  onSet: (value: SettingValue | null, onlyBuild: boolean) => void;
}) {
  const settings = [...view.catalogue, ...view.beside];
  const setting = settings.find((each) => each.key === key);
  const row = view.rows.find((each) => each.key === key);
  const held = row?.cells[layer] ?? null;
  const [value, setValue] = useState<SettingValue>(held?.value ?? row?.value ?? false);
  const [onlyBuild, setOnlyBuild] = useState(held?.buildId != null);
  if (!setting || !row) return null;
  const linked = setting.linked.map((other) => settings.find((each) => each.key === other)?.label ?? other);
  return (
    <Sheet open onOpenChange={onClose} title={setting.label}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          onSet(value, onlyBuild);
        }}
      >
        <p className="text-soft">
          For {layerWords[layer]}. Set by hand it isn&apos;t tested; a trial proves it.
        </p>
        <SettingField setting={setting} value={value} onChange={setValue} />
        {view.builds.length > 1 && (
          <Switch label="only for this build" checked={onlyBuild} onChange={setOnlyBuild} />
        )}
        {linked.length > 0 && (
          <p className="text-[13px] text-soft">Linked: {linked.join(", ")} will hold the same value.</p>
        )}
        {setting.countsDouble && typeof value === "number" && value > 0 && (
          <p className="text-[13px] text-soft">
            This limiter counts double: {value} gives {value / 2} fps.
          </p>
        )}
        {key === besideKeys.rate && (
          <p className="text-[13px] text-soft">
            A title whose speed is tied to its rate runs in slow motion below its own; a rate trial says what
            holds.
          </p>
        )}
        {setting.costs.heat > 0 && (
          <p className="text-[13px] text-caution">
            It may cost heat: keep to the maker&apos;s limits, and stop when the device gets too hot to hold.
          </p>
        )}
        <div className="flex gap-2">
          <Button type="submit" look="lit">
            Set it
          </Button>
          {held && <Button onClick={() => onSet(null, onlyBuild)}>Inherit it</Button>}
        </div>
      </form>
    </Sheet>
  );
}
