import type { Command } from "commander";
import { PlanProblem, timetable, timetablePlanSchema } from "@/core/timetable";
import { BadInput, jsonFrom } from "./input";

/** The order of a plan's runs. */
export function timetableCommand(program: Command): void {
  program
    .command("timetable <plan>")
    .description("The order of a plan's runs that costs least to set up, balanced inside every title.")
    .option("--json", "one JSON object")
    .action((file: string, { json }: { json?: boolean }) => {
      const plan = timetablePlanSchema.safeParse(jsonFrom(file));
      if (!plan.success) {
        const [issue] = plan.error.issues;
        throw new BadInput(`${file}: ${issue?.path.join(".") ?? ""}: ${issue?.message ?? "no plan"}`);
      }
      const made = (() => {
        try {
          return timetable(plan.data);
        } catch (error) {
          if (error instanceof PlanProblem) throw new BadInput(`${file}: ${error.message}.`);
          throw error;
        }
      })();
      if (json) process.stdout.write(`${JSON.stringify(made)}\n`);
      else {
        for (const { title, arm, round, startMin, evening } of made.order)
          process.stdout.write(
            `${evening === null ? "" : `${evening}\t`}${startMin.toFixed(1)}\t${title}\t${arm}\t${round}\n`,
          );
        process.stdout.write(
          `${made.minutes.toFixed(1)} min${made.evenings === null ? "" : `, ${made.evenings} evenings`}\n`,
        );
      }
    });
}
