import { changesBetween, first, labelsIn } from "@/core/kit";
import type { TrialView } from "@/contract";
import { usualLight } from "@/core/trial";
import { grades } from "@/core/verdict";
import { valueWords } from "@/core/words";
import { Panel, TableFrame, TableHead, say, Link } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

/** The arms with what they changed and what their runs measured. */
export function Arms({
  view: { trial, runs, job, figures, catalogue },
  runPath,
}: {
  view: TrialView;
  runPath: (arm: number) => string;
}) {
  const labelOf = labelsIn(catalogue);
  const bySpeed = figures.some(({ speedPercent }) => speedPercent !== null);
  return (
    <Panel title="Arms">
      <TableFrame name="Arms">
        <table aria-label="Arms" className="w-full text-left text-[13px]">
          <TableHead
            names={[
              "Arm",
              "Changes",
              "Runs",
              bySpeed ? "Speed" : "Average",
              "1 % low",
              "Full-speed time",
              "Hitches",
              "Power",
              "Lights",
            ]}
            tight
          />
          <tbody className="divide-y divide-line">
            {trial.arms.map((arm, index) => {
              const own = runs.filter((run) => run.arm === index);
              const figure = figures[index];
              if (!figure) return null;
              const changes = [
                ...changesBetween(trial.before.settings, arm.settings).map(
                  ({ key, to }) => `${labelOf(key)} ${valueWords(to)}`,
                ),
                ...Object.entries(arm.conditions).map(
                  ([key, to]) => `${key === "powerMode" ? "mode" : key} ${valueWords(to)}`,
                ),
              ];
              return (
                <tr key={arm.name} className={trial.keptArm === index ? "bg-raised" : undefined}>
                  <td className="px-2 py-1.5">
                    {trial.decidedAt ? (
                      arm.name
                    ) : (
                      <Link href={runPath(index)} className="underline decoration-line underline-offset-4">
                        {arm.name}
                      </Link>
                    )}
                    {trial.keptArm === index && <b className="ml-2 text-lit">kept</b>}
                  </td>
                  <td className="max-w-56 truncate px-2 text-soft" title={changes.join("; ")}>
                    {changes.join("; ") ||
                      (arm.buildId && arm.buildId !== job.buildId ? "another engine or build" : "as it was")}
                  </td>
                  <td className="figure whitespace-nowrap px-2">
                    {trial.runs[index]}
                    {!trial.decidedAt && ` of ${trial.rounds}`}
                  </td>
                  <td className="figure whitespace-nowrap px-2">
                    {bySpeed ? say.measure(figure.speedPercent, "%") : say.measure(figure.averageFps, "fps")}
                  </td>
                  <td className="figure px-2">{say.number(figure.low)}</td>
                  <td className="figure whitespace-nowrap px-2">
                    {say.measure(figure.fullSpeedTimePercent, "%")}
                  </td>
                  <td className="figure whitespace-nowrap px-2">
                    {say.measure(figure.hitchesPerMinute, "/min")}
                  </td>
                  <td className="figure whitespace-nowrap px-2">{say.measure(figure.watts, "W")}</td>
                  <td className="px-2">
                    <span className="flex flex-wrap gap-x-3">
                      {grades.flatMap((grade) => {
                        const shown = own.filter((run) => run.verdict.grade === grade);
                        return shown.length === 0
                          ? []
                          : [
                              <Link
                                key={grade}
                                href={`/jobs/${job.id}?run=${first(shown).id}`}
                                className="inline-flex items-center gap-1 whitespace-nowrap"
                                title={`runs ${shown.map(({ number }) => number).join(", ")}`}
                              >
                                <VerdictLamp
                                  grade={grade}
                                  between={usualLight(shown.map(({ verdict }) => verdict)).between}
                                  size={15}
                                />
                                {shown.length > 1 && (
                                  <span className="figure text-[12px] text-soft">×{shown.length}</span>
                                )}
                              </Link>,
                            ];
                      })}
                    </span>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </TableFrame>
    </Panel>
  );
}
