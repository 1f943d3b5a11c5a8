import { originWords, type LayerValue } from "@/core/profile";
import type { ProfileView } from "@/contract";
import { valueWords, words } from "@/core/words";
import { Button, Panel, When, Link } from "@/ui";
import type { LayerCell } from "./place";
import { standingWords } from "./LayerTable";

/** Changes of one value that are listed. */
const mostListed = 8;

/** Where a value came from, what proves it, and what stood there before. */
export function Origins({
  view,
  cell,
  onUndo,
}: {
  view: ProfileView;
  cell: LayerCell | null;
  onUndo: (id: number) => Promise<void>;
}) {
  const row = view.rows.find(({ key }) => key === cell?.key);
  if (!cell || !row)
    return (
      <Panel title="Where it came from">
        <p className="text-[13px] text-soft">
          Choose a value to see what proved it and what stood there before.
        </p>
      </Panel>
    );
  const labelOf = (key: string) => view.rows.find((each) => each.key === key)?.label ?? key;
  const isHere = (one: LayerValue) =>
    one.key === cell.key &&
    one.layer === cell.layer &&
    (one.layer !== "system" || one.systemId === view.systemId) &&
    (one.layer !== "title" || one.titleId === view.titleId);
  const past = view.history.filter(isHere);
  return (
    <Panel title={<span dir="auto">{row.label}</span>}>
      <p className="text-[13px]">
        Holds <b className="figure">{valueWords(row.value)}</b>: {standingWords(row)}.
      </p>
      {row.together.length > 0 && (
        <p className="mt-1 text-[12px] text-soft">
          Held along with {row.together.map(labelOf).join(", ")}: which of them did it isn&apos;t told apart.
        </p>
      )}
      {row.confirmations.length > 0 && (
        <ul className="mt-2 grid gap-1.5 text-[13px]" aria-label="Evidence">
          {row.confirmations.map(({ trialId, jobId, number, proof }) => (
            <li key={trialId}>
              <Link
                href={`/jobs/${jobId}/trials/${trialId}`}
                className="underline decoration-line underline-offset-4"
              >
                Trial {number}
              </Link>
              {proof && <span className="block text-[12px] text-soft">{words(proof)}</span>}
            </li>
          ))}
        </ul>
      )}
      <h3 className="mt-3 text-[12px] font-semibold text-soft">Set here</h3>
      {past.length === 0 ? (
        <p className="text-[13px] text-soft">Never: this layer inherits it.</p>
      ) : (
        <ol className="mt-1 grid gap-2 text-[13px]">
          {past.slice(0, mostListed).map((one, at) => (
            <li key={one.id} className="grid grid-cols-[1fr_auto] items-start gap-2">
              <span>
                <b className="figure">{one.value === null ? "inherits" : valueWords(one.value)}</b>,{" "}
                {originWords(one.origin)}
                {one.measuredOn && (
                  <span className="text-soft">
                    , on revision {one.measuredOn.revision}, driver {one.measuredOn.driver}, build{" "}
                    {one.measuredOn.build}
                  </span>
                )}
                <span className="block text-[12px] text-soft">
                  <When at={one.at} as="ago" />, {one.actor}
                </span>
              </span>
              {at === 0 && (
                <Button look="quiet" onClick={() => void onUndo(one.id)}>
                  Undo
                </Button>
              )}
            </li>
          ))}
          {past.length > mostListed && <li className="text-soft">and {past.length - mostListed} before.</li>}
        </ol>
      )}
    </Panel>
  );
}
