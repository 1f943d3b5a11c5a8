import { X } from "lucide-react";
import type { Region } from "@/core/capture";
import { Button, Input, Panel } from "@/ui";

/** What of the picture is watched, left out and read. */
export interface Regional {
  area: Region | null;
  box: Region | null;
  /** The title's own clock, read at two moments. */
  clock: Region | null;
  masks: Region[];
}

const blank: Region = { x: 8, y: 8, w: 80, h: 24 };
const sides = ["x", "y", "w", "h"] as const;
const sideNames = { x: "left", y: "top", w: "width", h: "height" };

/** The regions in figures, so that keys can set what a mouse draws. */
export function Regions({
  regional,
  onChange,
}: {
  regional: Regional;
  onChange: (regional: Regional) => void;
}) {
  const { area, box, clock, masks } = regional;
  const rows: { name: string; region: Region | null; put: (region: Region | null) => void }[] = [
    { name: "Counter", region: box, put: (region) => onChange({ ...regional, box: region }) },
    { name: "Clock", region: clock, put: (region) => onChange({ ...regional, clock: region }) },
    { name: "Watched", region: area, put: (region) => onChange({ ...regional, area: region }) },
    ...masks.map((mask, at) => ({
      name: `Left out ${at + 1}`,
      region: mask,
      put: (region: Region | null) =>
        onChange({
          ...regional,
          masks: region ? masks.with(at, region) : masks.filter((_, other) => other !== at),
        }),
    })),
  ];
  return (
    <Panel title="On the picture">
      <ul className="grid gap-2 text-[13px]">
        {rows.map(({ name, region, put }) => (
          <li key={name} className="flex flex-wrap items-center gap-1.5">
            <span className="w-20 text-soft">{name}</span>
            {region ? (
              <>
                {sides.map((side) => (
                  <Input
                    key={side}
                    type="number"
                    aria-label={`${name}, ${sideNames[side]}, pixels`}
                    value={String(region[side])}
                    min={side === "w" || side === "h" ? 1 : 0}
                    onChange={(event) =>
                      event.target.value !== "" && put({ ...region, [side]: Number(event.target.value) })
                    }
                    className="!min-h-8 !w-13 !px-1"
                  />
                ))}
                <Button
                  look="quiet"
                  aria-label={`Remove: ${name}`}
                  className="!px-1.5"
                  onClick={() => put(null)}
                >
                  <X size={14} aria-hidden />
                </Button>
              </>
            ) : (
              <Button look="quiet" onClick={() => put(blank)}>
                {name === "Watched" ? "all of it: name a part" : "none: add its box"}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Button look="quiet" className="mt-2" onClick={() => onChange({ ...regional, masks: [...masks, blank] })}>
        Leave a part out
      </Button>
    </Panel>
  );
}
