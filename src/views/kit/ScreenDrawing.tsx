"use client";
import { useEffect, useState } from "react";
import { shownCard, type Box, type PlacedScreen, type ScaleRow } from "@/core/resolution";

/** The card at a scale as a picture's address; drawn in the browser, empty before. */
function useCard(scale: number, shown: number): string | null {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    const { width, height, rgba } = shownCard(scale, shown);
    const canvas = document.createElement("canvas");
    canvas.width = width;
    canvas.height = height;
    canvas.getContext("2d")?.putImageData(new ImageData(new Uint8ClampedArray(rgba), width, height), 0, 0);
    setAddress(canvas.toDataURL());
  }, [scale, shown]);
  return address;
}

/**
 * A display's outline with the picture in it, true to scale; a close look at a test card, rendered at the scale
 * and shown by that display's own pixels, fills it.
 */
export function ScreenDrawing({
  row,
  display,
  shown,
  places,
  chosen,
  chosenWord = "try first",
  physical,
  realWidthMm,
}: {
  row: ScaleRow;
  display: Box;
  shown: Box;
  places: PlacedScreen[];
  chosen: boolean;
  chosenWord?: string;
  physical: Box | null;
  realWidthMm?: number;
}) {
  // Display pixels a native pixel, of the first screen.
  const pitch = Math.max(0.5, (row.linesShown * row.scale) / row.height);
  const card = useCard(row.scale, pitch);
  const width = 240,
    height = (width * display.height) / display.width;
  const unit = width / display.width;
  const left = (width - shown.width * unit) / 2,
    top = (height - shown.height * unit) / 2;
  const id = `edge-${row.scale}-${display.width}x${display.height}-${places.length}`;
  return (
    <figure>
      <svg
        viewBox={`-2 -2 ${width + 4} ${height + 4}`}
        className="w-full max-w-full"
        style={realWidthMm ? { width: `${realWidthMm}mm` } : undefined}
        role="img"
        aria-label={`×${row.scale} on the display`}
      >
        <defs>
          <clipPath id={id}>
            <rect width={width} height={height} />
          </clipPath>
        </defs>
        <rect
          width={width}
          height={height}
          rx="4"
          fill="var(--ground)"
          stroke={chosen ? "var(--lit)" : "var(--edge)"}
          strokeWidth={chosen ? 2.5 : 1.2}
        />
        <g clipPath={`url(#${id})`}>
          {places.map((place) => {
            const box = {
              x: left + place.left * shown.width * unit,
              y: top + place.top * shown.height * unit,
              width: place.width * shown.width * unit,
              height: place.height * shown.height * unit,
            };
            return card && place.screen === 0 ? (
              <image
                key={place.screen}
                {...box}
                href={card}
                preserveAspectRatio="xMidYMid slice"
                style={{ imageRendering: "pixelated" }}
              />
            ) : (
              <rect key={place.screen} {...box} fill="var(--raised)" />
            );
          })}
        </g>
      </svg>
      <figcaption className="figure mt-1 text-[12px]">
        ×{row.scale} {chosen && <b className="font-sans">{chosenWord}</b>}
        {physical && (
          <span className="ml-2 whitespace-nowrap text-soft">
            {((physical.height * row.linesShown) / display.height / row.height).toFixed(3)} mm a line
          </span>
        )}
      </figcaption>
    </figure>
  );
}
