import { X } from "lucide-react";
import { useState } from "react";
import type { Mark } from "@/core/trace";
import { Button, Input, Panel, say } from "@/ui";

/** Scenes and loading stretches, set at the moment that is shown. */
export function Marks({
  marks,
  moment,
  onChange,
}: {
  marks: Mark[];
  moment: number;
  onChange: (marks: Mark[]) => void;
}) {
  const [label, setLabel] = useState("");
  const [from, setFrom] = useState<number | null>(null);
  return (
    <Panel title="Marks">
      <div className="flex flex-wrap items-center gap-2">
        <Input
          aria-label="What is marked"
          placeholder="e.g. the lock gates"
          value={label}
          maxLength={120}
          onChange={(event) => setLabel(event.target.value)}
          className="!w-40"
        />
        {from === null ? (
          <Button disabled={label.trim() === ""} onClick={() => setFrom(moment)}>
            Begins here
          </Button>
        ) : (
          <Button
            look="lit"
            disabled={moment <= from}
            onClick={() => {
              onChange(
                [...marks, { label: label.trim(), startMs: from, endMs: moment }].sort(
                  (a, b) => a.startMs - b.startMs,
                ),
              );
              setFrom(null);
              setLabel("");
            }}
          >
            Ends here
          </Button>
        )}
      </div>
      {from !== null && <p className="mt-1 text-[12px] text-soft">From {say.clock(from)}; go on to its end.</p>}
      <ul className="mt-2 grid gap-1 text-[13px]">
        {marks.map((mark, at) => (
          <li key={at} className="flex items-center gap-2">
            <span className="figure text-soft">
              {say.clock(mark.startMs)}–{say.clock(mark.endMs)}
            </span>
            <span className="[overflow-wrap:anywhere]">{mark.label}</span>
            <Button
              look="quiet"
              aria-label={`Remove mark ${mark.label}`}
              className="!px-1.5"
              onClick={() => onChange(marks.filter((_, other) => other !== at))}
            >
              <X size={14} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
