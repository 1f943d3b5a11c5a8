"use client";
import type { RateReading } from "@/core/trial";
import { Panel, TableFrame, TableHead, say } from "@/ui";
import { cell, type EvidenceProps } from "./parts";

/**
 * Where a fresh run behind the cap should lie, and the chance that it holds; a reading kept before that was
 * reckoned has none.
 */
function freshWords({
  capFps,
  heldLow,
  heldHigh,
  chance,
}: Partial<RateReading["decision"]["candidates"][number]>) {
  if (capFps === null || heldLow === undefined || heldHigh === undefined || chance === undefined) return "–";
  const percent = (share: number) => (100 * share).toFixed(0);
  return `${percent(heldLow)} to ${percent(heldHigh)} %, ${Math.round(10 * chance)} in 10`;
}

/** Candidate rates with what would hold, and the overdriven clock scene by scene. */
export function Rate({ reading: { decision: rate, overdriven }, view: { trial } }: EvidenceProps<RateReading>) {
  const effectWords = {
    lifted: "lifted",
    "sped up": "was fine, now runs too fast",
    "no change": "no change",
    slower: "slower",
  } as const;
  return (
    <Panel
      title="Which rate holds"
      aside={<span className="figure text-[12px] text-soft">free: {rate.averageFps.toFixed(1)} fps</span>}
    >
      <TableFrame name="Candidate rates">
        <table aria-label="Candidate rates" className="w-full text-left text-[13px]">
          <TableHead
            tight
            names={["Rate", "Windows that hold", "A fresh run", "On this display", "Limiter", ""]}
          />
          <tbody className="divide-y divide-line">
            {rate.candidates.map((each, index) => (
              <tr
                key={`${each.capFps} ${each.patch?.name}`}
                className={index === rate.recommended ? "bg-raised" : undefined}
              >
                <td className={`${cell} figure`}>
                  {each.capFps === null ? "free" : `${say.number(each.capFps, each.capFps % 1 ? 2 : 0)} fps`}
                  {each.patch && <span className="font-sans text-soft"> by patch {each.patch.name}</span>}
                </td>
                <td className={cell}>
                  <span className="flex items-center gap-2">
                    <span className="h-2 w-32 rounded-sm bg-ground">
                      <span
                        className="block h-2 rounded-sm"
                        style={{
                          width: `${100 * each.held}%`,
                          background: each.held >= 0.99 ? "var(--series-a)" : "var(--series-b)",
                        }}
                      />
                    </span>
                    <span className="figure">{(100 * each.held).toFixed(1)} %</span>
                  </span>
                </td>
                <td className={`${cell} figure`}>{freshWords(each)}</td>
                <td className={cell}>
                  {each.refreshes === null
                    ? "as it comes"
                    : each.even
                      ? `${say.count(Math.round(each.refreshes), "refresh", "refreshes")} a frame`
                      : `${each.refreshes.toFixed(2)} refreshes a frame: uneven`}
                </td>
                <td className={`${cell} figure`}>{each.limiterValue === null ? "off" : each.limiterValue}</td>
                <td className={cell}>
                  {[
                    index === rate.recommended && (
                      <b key="r" className="text-lit">
                        recommended
                      </b>
                    ),
                    each.slowMotion && " slow motion",
                    each.patch && ` ${each.patch.sideEffects}`,
                  ].filter(Boolean)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </TableFrame>
      {overdriven.length > 0 && (
        <>
          <h3 className="mt-4 text-[13px] font-semibold">The emulated clock overdriven, scene by scene</h3>
          <TableFrame name="Overdriven clock by scene">
            <table aria-label="Overdriven clock by scene" className="mt-1 w-full text-left text-[13px]">
              <TableHead tight names={["Scene", "Usual", "Overdriven", ""]} />
              <tbody className="divide-y divide-line">
                {overdriven.map(({ label, before, after, effect }) => (
                  <tr key={label}>
                    <td className={cell}>{label || "all"}</td>
                    <td className={`${cell} figure`}>{before.toFixed(1)} fps</td>
                    <td className={`${cell} figure`}>{after.toFixed(1)} fps</td>
                    <td className={cell}>{effectWords[effect]}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </TableFrame>
        </>
      )}
      {trial.arms.length === 1 && (
        <p className="mt-2 text-[13px] text-soft">
          The engine&apos;s catalogue has no rate limiter, so nothing is written into the profile.
        </p>
      )}
    </Panel>
  );
}
