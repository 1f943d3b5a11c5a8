import { useEffect, useState } from "react";
import type { LookView } from "@/contract";
import { ChoiceField, say } from "@/ui";

/** What a verdict rests on before anything is entered. */
export interface Assumptions {
  nativeFps: number;
  tied: boolean;
  refreshHz: number;
  targetFps: number;
  houseRulesId: string | null;
}

const mostHz = 1000;

/** A figure inside a sentence, changed where it stands; an odd text leaves the figure before it in force. */
function Hz({
  label,
  value,
  unit,
  onChange,
}: {
  label: string;
  value: number;
  unit: string;
  onChange: (value: number) => void;
}) {
  const [text, setText] = useState(say.plain(value));
  useEffect(() => setText(say.plain(value)), [value]);
  const isRate = (read: number) => read >= 1 && read <= mostHz;
  const right = isRate(say.typedNumber(text));
  return (
    <span className="whitespace-nowrap">
      <input
        aria-label={label}
        aria-invalid={!right || undefined}
        inputMode="decimal"
        value={text}
        size={Math.max(2, text.length)}
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setText(event.target.value);
          const now = say.typedNumber(event.target.value);
          if (isRate(now)) onChange(now);
        }}
        onBlur={() => !right && setText(say.plain(value))}
        className="figure border-b border-dashed border-edge bg-transparent text-center text-text aria-invalid:border-caution"
      />{" "}
      {unit}
    </span>
  );
}

/** What the verdict assumes, as a sentence whose words are changed in place. */
export function Assumed({
  assumptions: { nativeFps, tied, refreshHz, targetFps, houseRulesId },
  houseRules,
  rig,
  title,
  onChange,
}: {
  assumptions: Assumptions;
  houseRules: LookView["houseRules"];
  /** Names of what is on the shelf and says its own figures. */
  rig: string | null;
  title: string | null;
  onChange: (changed: Partial<Assumptions>) => void;
}) {
  return (
    <p className="mt-1 leading-8 text-soft" data-testid="assumed">
      Judged as a title built for{" "}
      {title === null ? (
        <Hz
          label="Rate it was built for"
          value={nativeFps}
          unit="fps"
          onChange={(now) => onChange({ nativeFps: now })}
        />
      ) : (
        <b className="figure font-normal text-text">
          {say.plain(nativeFps)} fps ({title})
        </b>
      )}
      ,{" "}
      {title === null ? (
        <ChoiceField
          quiet
          label="Whether its speed goes with its rate"
          value={tied ? "tied" : "free"}
          options={[
            { value: "tied", label: "that slows down when its rate falls" },
            { value: "free", label: "that keeps its speed at any rate" },
          ]}
          onChange={(value) => onChange({ tied: value === "tied" })}
        />
      ) : tied ? (
        "that slows down when its rate falls"
      ) : (
        "that keeps its speed at any rate"
      )}
      , on a screen at{" "}
      {rig === null ? (
        <Hz
          label="Refresh of the screen"
          value={refreshHz}
          unit="Hz"
          onChange={(now) => onChange({ refreshHz: now })}
        />
      ) : (
        <b className="figure font-normal text-text">
          {say.plain(refreshHz)} Hz ({rig})
        </b>
      )}
      , wanted at{" "}
      <Hz label="Rate wanted" value={targetFps} unit="fps" onChange={(now) => onChange({ targetFps: now })} />
      {houseRules.length > 0 && (
        <>
          , by{" "}
          <ChoiceField
            quiet
            label="House rules"
            value={houseRulesId}
            options={houseRules.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(value) => onChange({ houseRulesId: value })}
          />
        </>
      )}
    </p>
  );
}
