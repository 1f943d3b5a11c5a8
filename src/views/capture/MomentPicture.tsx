import { useEffect, useRef } from "react";
import type { Region } from "@/core/capture";
import type { CaptureSession } from "./session";

/** A small picture of a moment, or of a part of it; nothing is asked again while neither changes. */
export function MomentPicture({
  session,
  ms,
  part = null,
  label,
  className = "",
}: {
  session: CaptureSession;
  ms: number;
  part?: Region | null;
  label: string;
  className?: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { x, y, w, h } = part ?? { x: 0, y: 0, w: 0, h: 0 };
  useEffect(() => {
    let current = true;
    void session.call.pictureAt(ms).then((bitmap) => {
      const drawn = canvas.current;
      if (!current || !bitmap || !drawn) return;
      [drawn.width, drawn.height] = w > 0 ? [w, h] : [bitmap.width, bitmap.height];
      drawn
        .getContext("2d")
        ?.drawImage(bitmap, x, y, w || bitmap.width, h || bitmap.height, 0, 0, drawn.width, drawn.height);
      bitmap.close();
    });
    return () => {
      current = false;
    };
  }, [session, ms, x, y, w, h]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={label}
      className={`rounded border border-line bg-black ${className}`}
    />
  );
}
