import { commonShapes, type NewSystem } from "@/core/kit";

/** Six common shapes of a system, by picture and rate: one is taken as it is, and changed after. */
export function Shapes({ onTake }: { onTake: (shape: NewSystem) => void }) {
  return (
    <div role="group" aria-label="Common shapes" className="flex flex-wrap gap-2">
      {commonShapes.map((shape) => (
        <button
          key={shape.name}
          type="button"
          onClick={() => onTake(shape)}
          className="grid min-h-11 justify-items-center gap-1 rounded-md border border-line px-3 py-2 text-[12px] hover:bg-raised"
        >
          <svg width="54" height="32" aria-hidden>
            {shape.screens.map(({ width, height, pixelAspect }, at) => {
              const all = shape.screens.length;
              const high = 26 / all,
                wide = (high * width * pixelAspect) / height;
              return (
                <rect
                  key={at}
                  x={27 - wide / 2}
                  y={2 + at * (high + 2)}
                  width={wide}
                  height={high}
                  fill="none"
                  stroke="var(--series-a)"
                  strokeWidth="1.5"
                />
              );
            })}
          </svg>
          <span className="figure">{shape.name}</span>
        </button>
      ))}
    </div>
  );
}
