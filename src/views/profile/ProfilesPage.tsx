"use client";
import type { ProfileListRow } from "@/core/records";
import { EmptyPanel, TableFrame, TableHead, buttonLook, say, Link } from "@/ui";

/** Where profiles are: every rig with the engines that jobs or values are of. */
export function ProfilesPage({ rows }: { rows: ProfileListRow[] }) {
  return (
    <div className="mx-auto max-w-6xl p-5">
      <header className="mb-4">
        <h1 className="text-xl font-semibold">Profiles</h1>
        <p className="text-[13px] text-soft">
          What jobs proved, in layers: the engine&apos;s default, then the rig, the system on it, the title on
          it.
        </p>
      </header>
      {rows.length === 0 ? (
        <EmptyPanel
          title="No profile yet."
          action={
            <Link href="/jobs/new" className={buttonLook("lit")}>
              Open a job
            </Link>
          }
        >
          A profile begins with the first job of an engine on a rig; what its trials keep lands here by itself.
        </EmptyPanel>
      ) : (
        <TableFrame name="Profiles" cards>
          <table aria-label="Profiles" className="w-full text-left">
            <TableHead names={["Rig", "Engine", "Values set", "To be confirmed", "Titles", "Jobs"]} />
            <tbody className="divide-y divide-line">
              {rows.map(({ rigId, rig, engineId, engine, values, toConfirm, titles, jobs, lastTitleId }) => (
                <tr key={rigId + engineId} className="hover:bg-panel">
                  <td className="px-2 py-2" dir="auto">
                    {rig}
                  </td>
                  <td className="px-2" dir="auto">
                    <Link
                      href={`/profiles?${new URLSearchParams({ rig: rigId, engine: engineId, ...(lastTitleId && { title: lastTitleId }) })}`}
                      aria-label={`Profile of ${engine} on ${rig}`}
                      className="underline decoration-line underline-offset-4 hover:decoration-text"
                    >
                      {engine}
                    </Link>
                  </td>
                  <td className="figure px-2">{values === 0 ? "none yet" : say.count(values, "value")}</td>
                  <td className="figure px-2">{toConfirm === 0 ? "" : toConfirm}</td>
                  <td className="figure px-2">{titles}</td>
                  <td className="figure px-2">{jobs}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </TableFrame>
      )}
    </div>
  );
}
