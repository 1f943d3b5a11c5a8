import { useState } from "react";
import { batteryWh } from "@/core/kit";
import { Field, Input } from "@/ui";

/** A battery whose label gives mAh and V: converted into the Wh that is kept. */
export function MilliampHours({ onWattHours }: { onWattHours: (wh: number) => void }) {
  const [label, setLabel] = useState({ mah: "", volts: "" });
  const change = (part: Partial<typeof label>) => {
    const next = { ...label, ...part };
    setLabel(next);
    const numberIn = (text: string) => Number(text.replace(",", "."));
    const mah = numberIn(next.mah),
      volts = numberIn(next.volts);
    if (mah > 0 && volts > 0) onWattHours(Math.round(batteryWh(mah, volts) * 100) / 100);
  };
  return (
    <div className="col-span-2 grid grid-cols-2 gap-4">
      <Field label="or its charge" unit="mAh">
        {(ids) => (
          <Input
            {...ids}
            inputMode="decimal"
            value={label.mah}
            onChange={(event) => change({ mah: event.target.value })}
          />
        )}
      </Field>
      <Field label="at a voltage of" unit="V" help="Converted into watt-hours.">
        {(ids) => (
          <Input
            {...ids}
            inputMode="decimal"
            value={label.volts}
            onChange={(event) => change({ volts: event.target.value })}
          />
        )}
      </Field>
    </div>
  );
}
