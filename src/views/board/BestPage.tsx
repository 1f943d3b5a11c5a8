"use client";
import { useRouter } from "next/navigation";
import type { Output } from "@/contract";
import { ways } from "@/core/best";
import { Button, EmptyPanel, Keys, Link, Panel, TableFrame, buttonLook, say } from "@/ui";

type View = Output<"viewBest">;
type Proof = View["best"][number]["rows"][number]["wins"][number];

const outcomes = [
  { key: "wins", head: "Wins" },
  { key: "ties", head: "Ties" },
  { key: "losses", head: "Beaten" },
  { key: "open", head: "Not settled" },
] as const;

/** What one is, at the head of a column, and several. */
const called: Record<View["way"], { head: string; several: string }> = {
  engine: { head: "Engine", several: "engines" },
  driver: { head: "Driver", several: "drivers" },
  "power mode": { head: "Power mode", several: "power modes" },
};

/** Who wins where: engines, drivers or power modes by system and rig, from every comparison there was. */
export function BestPage({ view }: { view: View }) {
  const router = useRouter();
  const { way, best, watts } = view;
  return (
    <div className="mx-auto max-w-5xl p-5">
      <Keys
        actions={[
          { keys: "escape", shown: "Esc", label: "back to the board", run: () => router.push("/board") },
        ]}
      />
      <header className="mb-4">
        <h1 className="text-xl font-semibold">Best by system</h1>
        <p className="text-[13px] text-soft">
          From trials and campaigns in which nothing else differed, title by title; ties are ties, and what
          wasn&apos;t compared isn&apos;t ranked.{" "}
          <Link href="/board" className="underline underline-offset-4">
            The board of titles
          </Link>
        </p>
        <div role="group" aria-label="What is compared" className="mt-3 flex flex-wrap gap-2">
          {ways.map((each) => (
            <Button
              key={each}
              aria-pressed={each === way}
              onClick={() => router.push(`/board/best?${new URLSearchParams({ way: each })}`)}
            >
              {called[each].several}
            </Button>
          ))}
        </div>
      </header>
      {best.length === 0 ? (
        <EmptyPanel
          title={`No two ${called[way].several} were compared yet.`}
          action={
            <Link href="/campaigns/new" className={buttonLook("lit")}>
              Plan a campaign
            </Link>
          }
        >
          A trial of one change, or a campaign over several titles, tells which is best.
        </EmptyPanel>
      ) : (
        <div className="grid gap-4">
          {best.map(({ systemId, system, rigId, rig, rows, notRun }) => (
            <Panel key={`${systemId} ${rigId}`} title={`${system} on ${rig}`}>
              <TableFrame name={`Best for ${system} on ${rig}`} cards>
                <table aria-label={`Best for ${system} on ${rig}`} className="w-full text-left text-[13px]">
                  <thead className="text-[12px] text-soft">
                    <tr>
                      <th className="px-2 py-1 font-normal">{called[way].head}</th>
                      {outcomes.map(({ head }) => (
                        <th key={head} className="px-2 font-normal">
                          {head}
                        </th>
                      ))}
                    </tr>
                  </thead>
                  <tbody className="divide-y divide-line">
                    {rows.map((row) => (
                      <tr key={row.name} className="align-top">
                        <th scope="row" className="px-2 py-1.5 text-left align-top font-semibold">
                          {row.name}
                        </th>
                        {outcomes.map(({ key }) => (
                          <td key={key} className="px-2 py-1.5">
                            <Titles proofs={row[key]} />
                          </td>
                        ))}
                      </tr>
                    ))}
                  </tbody>
                </table>
              </TableFrame>
              {notRun.length > 0 && (
                <p className="mt-1 text-[12px] text-soft">Not compared here: {notRun.join(", ")}.</p>
              )}
            </Panel>
          ))}
        </div>
      )}
      {watts.length > 0 && (
        <Panel title="Steady on the least watts" className="mt-4">
          <TableFrame name="Steady on the least watts" cards>
            <table aria-label="Steady on the least watts" className="w-full text-left text-[13px]">
              <thead className="text-[12px] text-soft">
                <tr>
                  {["System", "Rig", "With", "Mean watts", "Titles"].map((head) => (
                    <th key={head} className="px-2 py-1 font-normal">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody className="divide-y divide-line">
                {watts.map(({ systemId, system, rigId, rig, name, meanWatts, titles }) => (
                  <tr key={`${systemId} ${rigId} ${name}`} className="align-top">
                    <td className="px-2 py-1.5">{system}</td>
                    <td className="px-2 py-1.5">{rig}</td>
                    <td className="px-2 py-1.5">{name}</td>
                    <td className="figure px-2 py-1.5">{say.number(meanWatts)} W</td>
                    <td className="px-2 py-1.5 text-soft">
                      {titles.map(({ title, jobId, runId, watts: own }, at) => (
                        <span key={runId}>
                          {at > 0 && ", "}
                          <Link href={`/jobs/${jobId}?run=${runId}`} className="underline underline-offset-4">
                            {title}
                          </Link>{" "}
                          {say.number(own)} W
                        </span>
                      ))}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </TableFrame>
          <p className="mt-1 text-[12px] text-soft">
            Of each title the steady run with the least mean watts that was measured; other modes may not have
            been run.
          </p>
        </Panel>
      )}
    </div>
  );
}

/** How many titles, and which: each leads to the comparison that says so. */
function Titles({ proofs }: { proofs: Proof[] }) {
  if (proofs.length === 0) return <span className="text-soft">–</span>;
  return (
    <>
      <span className="figure">{proofs.length}</span>{" "}
      <span className="text-soft">
        {proofs.map(({ title, jobId, trialId }, at) => (
          <span key={trialId + title}>
            {at > 0 && ", "}
            <Link href={`/jobs/${jobId}/trials/${trialId}`} className="underline underline-offset-4">
              {title}
            </Link>
          </span>
        ))}
      </span>
    </>
  );
}
