import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Region } from "@/core/capture";
import { ChoiceField } from "@/ui";
import type { OpenedCapture } from "@/workers";
import type { Regional } from "./Regions";

export type RegionKind = "box" | "mask" | "area" | "clock";
const kinds: { value: RegionKind; label: string }[] = [
  { value: "box", label: "the counter's box" },
  { value: "mask", label: "a part to leave out" },
  { value: "clock", label: "the title's own clock" },
  { value: "area", label: "the part to watch" },
];

/**
 * The picture at a moment; a region is drawn on it by dragging, and the arrows step by one captured picture.
 */
export function Picture({
  bitmap,
  opened,
  regional,
  found,
  onStep,
  onDrawn,
}: {
  bitmap: ImageBitmap | null;
  opened: OpenedCapture;
  regional: Regional;
  /** Where a counter was found by itself. */
  found: Region | null;
  onStep: (steps: number) => void;
  onDrawn: (kind: RegionKind, region: Region) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [kind, setKind] = useState<RegionKind>("box");
  const [drag, setDrag] = useState<{ x: number; y: number; w: number; h: number } | null>(null);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !bitmap) return;
    context.drawImage(bitmap, 0, 0, opened.width, opened.height);
    const style = getComputedStyle(document.documentElement);
    const draw = ({ x, y, w, h }: Region, colour: string, dash: number[]) => {
      context.lineWidth = Math.max(1.5, opened.width / 400);
      context.setLineDash(dash.map((part) => (part * opened.width) / 400));
      context.strokeStyle = style.getPropertyValue(colour);
      context.strokeRect(x, y, w, h);
    };
    if (found && !regional.box) draw(found, "--soft", [2, 3]);
    if (regional.box) draw(regional.box, "--lit", []);
    if (regional.clock) draw(regional.clock, "--series-b", [1.5, 1.5]);
    if (regional.area) draw(regional.area, "--text", [6, 3]);
    for (const mask of regional.masks) draw(mask, "--caution", [3, 3]);
    if (drag) draw(upright(drag), "--lit", [4, 2]);
  }, [bitmap, opened, regional, found, drag]);
  const place = (event: PointerEvent<HTMLCanvasElement>) => {
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    return {
      x: ((event.clientX - left) / width) * opened.width,
      y: ((event.clientY - top) / height) * opened.height,
    };
  };
  const step = (event: KeyboardEvent) => {
    const steps = { ArrowLeft: -1, ArrowRight: 1, PageUp: -60, PageDown: 60 }[event.key];
    if (steps === undefined) return;
    event.preventDefault();
    onStep(steps);
  };
  return (
    <div>
      <div className="mb-1 flex flex-wrap items-center gap-2 text-[13px] text-soft">
        Draw
        <ChoiceField
          quiet
          label="What is drawn on the picture"
          value={kind}
          options={kinds}
          onChange={(value) => setKind(kinds.find((each) => each.value === value)?.value ?? "box")}
        />
        <span className="text-[12px] max-sm:hidden">by dragging; arrows step by one picture</span>
      </div>
      <canvas
        ref={canvas}
        width={opened.width}
        height={opened.height}
        tabIndex={0}
        role="img"
        aria-label="The video's picture at the chosen moment"
        onKeyDown={step}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setDrag({ ...place(event), w: 0, h: 0 });
        }}
        onPointerMove={(event) => {
          if (!drag) return;
          const { x, y } = place(event);
          setDrag({ ...drag, w: x - drag.x, h: y - drag.y });
        }}
        onPointerUp={() => {
          if (drag && Math.abs(drag.w) >= 4 && Math.abs(drag.h) >= 4) onDrawn(kind, upright(drag));
          setDrag(null);
        }}
        className="max-h-[46vh] w-auto max-w-full cursor-crosshair rounded border border-line bg-black"
      />
    </div>
  );
}

/** A dragged rectangle with its corner at the top left, in whole pixels. */
const upright = ({ x, y, w, h }: Region): Region => ({
  x: Math.round(Math.min(x, x + w)),
  y: Math.round(Math.min(y, y + h)),
  w: Math.max(1, Math.round(Math.abs(w))),
  h: Math.max(1, Math.round(Math.abs(h))),
});
