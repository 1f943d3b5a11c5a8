"use client";
import { useRouter } from "next/navigation";
import type { CampaignListRow } from "@/core/records";
import { EmptyPanel, KeyHint, Keys, TableFrame, TableHead, When, buttonLook, say, Link } from "@/ui";

/** Campaigns: the same titles over several ways to run them. */
export function CampaignsPage({ rows }: { rows: CampaignListRow[] }) {
  const router = useRouter();
  return (
    <div className="mx-auto max-w-6xl p-5">
      <Keys
        actions={[
          { keys: "n", shown: "N", label: "plan a campaign", run: () => router.push("/campaigns/new") },
        ]}
      />
      <header className="mb-4 flex items-center gap-4">
        <div>
          <h1 className="text-xl font-semibold">Campaigns</h1>
          <p className="text-[13px] text-soft">
            Many titles, run in several ways, in an order that wastes no evening.
          </p>
        </div>
        <Link href="/campaigns/new" className={`${buttonLook("lit")} ml-auto`}>
          Plan one <KeyHint>N</KeyHint>
        </Link>
      </header>
      {rows.length === 0 ? (
        <EmptyPanel
          title="No campaign yet."
          action={
            <Link href="/campaigns/new" className={buttonLook("lit")}>
              Plan a campaign
            </Link>
          }
        >
          Which engine is best over a dozen titles, what an update changed, what a device manages: say what is
          run with what, and the runs are put in order, taken one by one, and answered together.
        </EmptyPanel>
      ) : (
        <TableFrame name="Campaigns" cards>
          <table aria-label="Campaigns" className="w-full text-left">
            <TableHead names={["Campaign", "Question", "Titles", "Arms", "Runs", "Last run"]} />
            <tbody className="divide-y divide-line">
              {rows.map(({ id, name, question, titles, arms, rounds, runs, lastRunAt }) => (
                <tr key={id} className="hover:bg-panel">
                  <td className="px-2 py-2 [overflow-wrap:anywhere]" dir="auto">
                    <Link
                      href={`/campaigns/${id}`}
                      className="underline decoration-line underline-offset-4 hover:decoration-text"
                    >
                      {name}
                    </Link>
                  </td>
                  <td className="px-2">{question}</td>
                  <td className="figure px-2">{titles}</td>
                  <td className="figure px-2">{arms}</td>
                  <td className="figure px-2 whitespace-nowrap">
                    {runs}{" "}
                    <span className="text-soft">
                      of {say.count(titles * arms * rounds, "planned", "planned")}
                    </span>
                  </td>
                  <td className="px-2">{lastRunAt ? <When at={lastRunAt} /> : "none yet"}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </TableFrame>
      )}
    </div>
  );
}
