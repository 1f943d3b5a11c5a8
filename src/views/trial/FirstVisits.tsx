import { armAt } from "@/core/trial";
import type { TrialView } from "@/contract";
import { Panel, TableFrame, TableHead, Link } from "@/ui";

/** Cold and warm side by side: what first visits lost against later ones. */
export function FirstVisits({ view: { visits, trial, job } }: { view: TrialView }) {
  const most = Math.max(1, ...visits.map(({ firstLostMs, laterLostMs }) => Math.max(firstLostMs, laterLostMs)));
  const bar = (ms: number, colour: string) => (
    <span className="flex items-center gap-2">
      <span
        className="h-2 rounded-sm"
        style={{ width: `${Math.max(1, (130 * ms) / most)}px`, background: colour }}
      />
      <span className="figure text-[12px]">{ms.toFixed(0)} ms</span>
    </span>
  );
  return (
    <Panel
      title="First visits and later ones"
      aside={<span className="text-[12px] text-soft">lost to hitches, mean of a scene</span>}
    >
      <TableFrame name="First and later visits">
        <table aria-label="First and later visits" className="w-full text-left text-[13px]">
          <TableHead names={["Run", "Arm", "First visit", "Later visits"]} tight />
          <tbody className="divide-y divide-line">
            {visits.map(({ runId, number, arm, firstLostMs, laterLostMs }) => (
              <tr key={runId}>
                <td className="px-2 py-1">
                  <Link href={`/jobs/${job.id}?run=${runId}`} className="underline decoration-line">
                    {number}
                  </Link>
                </td>
                <td className="px-2">{armAt(trial, arm).name}</td>
                <td className="px-2">{bar(firstLostMs, "var(--series-b)")}</td>
                <td className="px-2">{bar(laterLostMs, "var(--series-a)")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </TableFrame>
    </Panel>
  );
}
