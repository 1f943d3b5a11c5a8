import type { TrialView } from "@/contract";
import { Panel, say, TableFrame, TableHead } from "@/ui";
import { percent } from "@/views/compare/Effects";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

/** A trial's arms place by place: rate and light of each, and the second arm over the first. */
export function PlacesTable({ view: { trial, places } }: { view: Pick<TrialView, "trial" | "places"> }) {
  if (places.length === 0) return null;
  const isPair = trial.arms.length === 2;
  return (
    <Panel title="Place by place">
      <TableFrame name="Places">
        <table aria-label="Places of each arm" className="w-full text-left text-[13px]">
          <TableHead
            names={["Place", ...trial.arms.map(({ name }) => name), ...(isPair ? ["Change"] : [])]}
            tight
          />
          <tbody className="divide-y divide-line">
            {places.map(({ label, arms }) => {
              const [a, b] = arms;
              return (
                <tr key={label}>
                  <td className="px-2 py-1.5">{label}</td>
                  {arms.map((arm, at) => (
                    <td key={trial.arms[at]?.name} className="px-2">
                      {arm ? (
                        <>
                          <span className="flex items-center gap-2">
                            <VerdictLamp grade={arm.grade} between={arm.between} size={14} ran />
                            <span className="figure whitespace-nowrap">{say.number(arm.averageFps)} fps</span>
                          </span>
                          <span className="figure block whitespace-nowrap text-[12px] text-soft">
                            {arm.interval &&
                              `${say.number(arm.interval.low)} to ${say.number(arm.interval.high)}, `}
                            worst {say.number(arm.worstFps)}
                          </span>
                        </>
                      ) : (
                        <span className="text-soft">not run</span>
                      )}
                    </td>
                  ))}
                  {isPair && (
                    <td className="figure px-2">{a && b ? percent(b.averageFps / a.averageFps) : "–"}</td>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </TableFrame>
      <p className="mt-2 text-[12px] text-soft">
        Means of each arm&apos;s runs with 95 % of where they lie, the light of its newest. One place&apos;s
        change is less sure than the whole run&apos;s.
      </p>
    </Panel>
  );
}
