import type { Box, PlacedScreen, ScaleRow } from "@/core/resolution";

/** Picture elements are drawn as a raster whose pitch is that of the scale's own pixels, no finer than this many units. */
const finest = 0.9;
const linesAStroke = 24;

/** A display's outline with the picture in it, true to scale; the raster has a stroke for every 24 rendered lines, so coarse scales look coarse. */
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
  const width = 240,
    height = (width * display.height) / display.width;
  const unit = width / display.width;
  const left = (width - shown.width * unit) / 2,
    top = (height - shown.height * unit) / 2;
  const pitch = Math.max(finest, (linesAStroke * row.linesShown * unit) / row.height);
  const id = `raster-${row.scale}-${display.width}x${display.height}-${places.length}`;
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
          <pattern id={id} width={pitch} height={pitch} patternUnits="userSpaceOnUse">
            <path
              d={`M0 0H${pitch}M0 0V${pitch}`}
              stroke="var(--ground)"
              strokeWidth={Math.min(1, pitch / 4)}
              fill="none"
            />
          </pattern>
          <clipPath id={`${id}-edge`}>
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
        <g clipPath={`url(#${id}-edge)`}>
          {places.map((place) => {
            const box = {
              x: left + place.left * shown.width * unit,
              y: top + place.top * shown.height * unit,
              width: place.width * shown.width * unit,
              height: place.height * shown.height * unit,
            };
            return (
              <g key={place.screen}>
                <rect {...box} fill="var(--series-a)" opacity={place.screen === 0 ? 0.6 : 0.4} />
                <rect {...box} fill={`url(#${id})`} />
              </g>
            );
          })}
        </g>
      </svg>
      <figcaption className="figure mt-1 text-[12px]">
        ×{row.scale} {chosen && <b className="font-sans">{chosenWord}</b>}
        {physical && (
          <span className="ml-2 text-soft">
            {((physical.height * row.linesShown) / display.height / row.height).toFixed(3)} mm a line
          </span>
        )}
      </figcaption>
    </figure>
  );
}
