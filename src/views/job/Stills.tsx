import { useQuery } from "@tanstack/react-query";
import { call } from "@/contract/client";
import { say } from "@/ui";

/**
 * Small pictures that were kept of a run measured from a video: where its marks begin, and where pictures stood
 * longest.
 */
export function Stills({ runId }: { runId: string }) {
  const { data: rows = [] } = useQuery({
    queryKey: ["stills", runId],
    queryFn: async () => {
      const sent = await call("listStills", { id: runId });
      return sent.ok ? sent.answer.rows : [];
    },
  });
  if (rows.length === 0) return null;
  return (
    <section className="border-t border-line pt-4" aria-label="Stills">
      <h2 className="mb-2 text-[13px] font-semibold text-soft">Stills</h2>
      <ul className="grid grid-cols-2 gap-2">
        {rows.map(({ id, atMs, why, label, lastsMs, width, height }) => {
          const said = why === "mark" ? label : `stood ${say.number(lastsMs, 0)} ms`;
          return (
            <li key={id} className="min-w-0 text-[12px]">
              <a href={`/api/v1/stills/${id}`} target="_blank" rel="noreferrer" className="block">
                {/* A picture of the application's own, of a size that is known: nothing to optimise. */}
                <img
                  src={`/api/v1/stills/${id}`}
                  width={width}
                  height={height}
                  loading="lazy"
                  alt={`The picture at ${say.clock(atMs)}: ${said}`}
                  className="h-auto w-full rounded border border-line bg-black"
                />
              </a>
              <span className="figure text-soft">{say.clock(atMs)}</span>{" "}
              <span dir="auto" className="[overflow-wrap:anywhere]">
                {said}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
