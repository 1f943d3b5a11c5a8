"use client";
import { useState } from "react";
import type { ProfileView } from "@/contract";
import { Button, Sheet, Switch, TableFrame, TableHead, say } from "@/ui";
import { otherwiseMeant, rowsTakenIn, type TakenIn } from "./takingIn";

/** Rows that are drawn; the rest is counted, and taken in with them. */
const mostDrawn = 300;

/**
 * What a profile or a recipe would change, before anything is: from where, to where, what proves each value, and what
 * it is for. It stops where the file is for something else until that is confirmed.
 */
export function TakeInSheet({
  taken,
  view,
  onTake,
  onClose,
}: {
  taken: TakenIn;
  view: ProfileView;
  /** @param left places in the file that stay out */
  onTake: (left: ReadonlySet<number>) => Promise<void>;
  onClose: () => void;
}) {
  const { rows, unknown } = rowsTakenIn(taken, view);
  const otherwise = otherwiseMeant(taken, view);
  const title = view.titles.find(({ id }) => id === view.titleId);
  const needsTitle = taken.kind === "recipe" && !title;
  const [confirmed, setConfirmed] = useState(false);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [busy, setBusy] = useState(false);
  const from =
    taken.kind === "profile"
      ? `${taken.file.engine} on ${taken.file.rig}`
      : `a recipe for ${taken.recipe.title.name} (${taken.recipe.title.system}) with ${taken.recipe.engine.name} ${taken.recipe.engine.build}`;
  const to = `${view.engine.name} on ${view.rig.name}${taken.kind === "recipe" && title ? `, in ${title.name}'s layer` : ""}`;
  const wanted = rows.filter(({ at }) => !left.has(at));
  return (
    <Sheet open onOpenChange={(open) => !open && onClose()} title={`Take in ${taken.name}`}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-[13px]">
        <dt className="text-soft">From</dt>
        <dd dir="auto">{from}</dd>
        <dt className="text-soft">To</dt>
        <dd dir="auto">{to}</dd>
      </dl>
      {otherwise.length > 0 && (
        <div className="mt-3 rounded-md border border-caution p-3 text-[13px]" role="alert">
          <p>The file is for {otherwise.join("; ")}. What was proven there needn&apos;t hold here.</p>
          <div className="mt-2">
            <Switch label="take it in here all the same" checked={confirmed} onChange={setConfirmed} />
          </div>
        </div>
      )}
      {needsTitle && (
        <p className="mt-3 rounded-md border border-caution p-3 text-[13px]" role="alert">
          A recipe is for one title: choose the title at the top of the page first. The file stays here until
          you close this.
        </p>
      )}
      {rows.length === 0 ? (
        <p className="mt-3 text-[13px]">Nothing in it is known here, so nothing can be taken in.</p>
      ) : (
        <div className="mt-3">
          <TableFrame name="What would be set">
            <table aria-label="What would be set" className="w-full text-left text-[13px]">
              <TableHead tight names={["", "Setting", "Where", "Here now", "Then", "Proof there", "For"]} />
              <tbody className="divide-y divide-line">
                {rows.slice(0, mostDrawn).map((row) => (
                  <tr key={row.at}>
                    <td className="px-2 py-1">
                      <input
                        type="checkbox"
                        aria-label={`Take in ${row.label}, ${row.where}`}
                        checked={!left.has(row.at)}
                        onChange={() =>
                          setLeft((before) => {
                            const now = new Set(before);
                            if (!now.delete(row.at)) now.add(row.at);
                            return now;
                          })
                        }
                      />
                    </td>
                    <th scope="row" className="px-2 font-normal">
                      {row.label}
                    </th>
                    <td className="px-2" dir="auto">
                      {row.where}
                    </td>
                    <td className="figure px-2">{row.now ?? "–"}</td>
                    <td className="figure px-2">{row.then}</td>
                    <td className="px-2 text-soft">{row.proof}</td>
                    <td className="px-2 text-soft">{row.purpose}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </TableFrame>
          {rows.length > mostDrawn && (
            <p className="mt-1 text-[12px] text-soft">and {rows.length - mostDrawn} more.</p>
          )}
        </div>
      )}
      {unknown.length > 0 && (
        <p className="mt-2 text-[12px] text-soft">
          Not known here, and left out: {unknown.slice(0, 12).join(", ")}
          {unknown.length > 12 && ` and ${unknown.length - 12} more`}.
        </p>
      )}
      <div className="mt-4 flex gap-2">
        <Button
          look="lit"
          disabled={busy || wanted.length === 0 || needsTitle || (otherwise.length > 0 && !confirmed)}
          onClick={() => {
            setBusy(true);
            void onTake(left).finally(() => setBusy(false));
          }}
        >
          Take in {say.count(wanted.length, "value")}
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Sheet>
  );
}
