"use client";
import { useState } from "react";
import type { Conditions } from "@/core/kit";
import { Button, ChoiceField, Field, Input, Switch } from "@/ui";

/** The conditions that will be stamped on the next run, but for those that the strip itself changes. */
export function ConditionsForm({
  conditions,
  displays,
  onSave,
}: {
  conditions: Conditions;
  displays: string[];
  onSave: (changed: Partial<Conditions>) => void;
}) {
  const [room, setRoom] = useState(conditions.roomC === null ? "" : String(conditions.roomC));
  const [capturePath, setCapturePath] = useState(conditions.capturePath);
  const [soundPath, setSoundPath] = useState(conditions.soundPath ?? "");
  const [display, setDisplay] = useState(conditions.display);
  const [flags, setFlags] = useState({
    pluggedIn: conditions.pluggedIn,
    docked: conditions.docked,
    cooler: conditions.cooler,
  });
  const roomC = room.trim() === "" ? null : Number(room.replace(",", "."));
  const wrong =
    roomC !== null && !(roomC >= -20 && roomC <= 60)
      ? "Between −20 and 60 °C, or empty when not known."
      : undefined;
  return (
    <form
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (!wrong) onSave({ roomC, capturePath, soundPath: soundPath.trim() || undefined, display, ...flags });
      }}
    >
      <div className="grid grid-cols-2 gap-4">
        <Field label="Room temperature" unit="°C" error={wrong} help="Empty when not known.">
          {(ids) => (
            <Input
              {...ids}
              inputMode="decimal"
              value={room}
              onChange={(event) => setRoom(event.target.value)}
            />
          )}
        </Field>
        <Field label="Display">
          {({ id }) => (
            <ChoiceField
              id={id}
              label="Display"
              value={display}
              options={displays.map((name) => ({ value: name, label: name }))}
              onChange={setDisplay}
            />
          )}
        </Field>
      </div>
      <Field
        label="Capture path"
        help="How the frames are logged. Capturing costs speed: keep it the same for runs that are compared."
      >
        {(ids) => (
          <Input
            {...ids}
            value={capturePath}
            maxLength={120}
            onChange={(event) => setCapturePath(event.target.value)}
          />
        )}
      </Field>
      <Field
        label="Sound goes to"
        help="Each path adds a delay of its own: keep it the same for runs that are compared."
      >
        {(ids) => (
          <Input
            {...ids}
            value={soundPath}
            maxLength={120}
            placeholder="e.g. speakers, HDMI, headset by cable"
            onChange={(event) => setSoundPath(event.target.value)}
          />
        )}
      </Field>
      <div className="flex flex-wrap gap-5">
        <Switch
          label="plugged in"
          checked={flags.pluggedIn === true}
          onChange={(pluggedIn) => setFlags({ ...flags, pluggedIn })}
        />
        <Switch label="docked" checked={flags.docked} onChange={(docked) => setFlags({ ...flags, docked })} />
        <Switch
          label="cooler on"
          checked={flags.cooler}
          onChange={(cooler) => setFlags({ ...flags, cooler })}
        />
      </div>
      <p className="text-[12px] text-soft">
        Passive metal cases can burn; keep fans clear of fingers and dust. Unplug and set aside a battery that
        swells, smells or gets hot, and leave it to a qualified service.
      </p>
      <Button type="submit" look="lit" className="justify-self-start">
        Keep these conditions
      </Button>
    </form>
  );
}
