import { z } from "@/core/schema";

const name = z.string().trim().min(1).max(200);
const minutes = z.number().min(0).max(10_000);

/** Runs of a plan at most. */
const mostRuns = 20_000;

/**
 * What is to be run: every title with every arm, so many rounds. An arm's other members are what takes time to
 * change: engine, driver, power mode, anything that `costs` names.
 */
export const timetablePlanSchema = z
  .object({
    titles: z
      .array(z.object({ name, loadingMin: minutes.default(0), passMin: minutes }))
      .min(1)
      .max(5000),
    arms: z
      .array(z.object({ name }).catchall(z.union([z.string().max(200), z.number(), z.boolean(), z.null()])))
      .min(1)
      .max(24),
    rounds: z.number().int().min(1).max(40),
    /** Minutes to change each, `title` among them. */
    costs: z.record(z.string().max(60), minutes).default({}),
    /** Minutes that a device, named by its arms' `rig`, rests between two runs, to cool down. */
    pauses: z.record(z.string().max(200), minutes).optional(),
    eveningMin: z.number().min(1).max(10_000).optional(),
  })
  .superRefine(({ titles, arms, rounds }, context) => {
    const twice = (list: { name: string }[], path: string) => {
      const seen = new Set<string>();
      list.forEach(({ name: one }, at) => {
        if (seen.has(one))
          context.addIssue({
            code: "custom",
            path: [path, at, "name"],
            message: `“${one}” stands there already.`,
          });
        seen.add(one);
      });
    };
    twice(titles, "titles");
    twice(arms, "arms");
    if (titles.length * arms.length * rounds > mostRuns)
      context.addIssue({
        code: "custom",
        path: ["titles"],
        message: `${titles.length * arms.length * rounds} runs are more than ${mostRuns}.`,
      });
  });
export type TimetablePlan = z.infer<typeof timetablePlanSchema>;

/** Minutes to go from any arm to any other, and from one title to the next. */
export interface ChangeCosts {
  title: number;
  /** Of arms a to b at a · arms + b. */
  arm: Float64Array;
  /** What lies between the two at least, whatever is changed meanwhile. */
  pause: Float64Array;
}

/** What each change takes: of every member that two arms differ in, the minutes that it names. */
export function changeCosts({
  arms,
  costs,
  pauses = {},
}: Pick<TimetablePlan, "arms" | "costs" | "pauses">): ChangeCosts {
  const keys = Object.keys(costs).filter((key) => key !== "title" && key !== "name");
  const arm = new Float64Array(arms.length ** 2),
    pause = new Float64Array(arms.length ** 2);
  arms.forEach((a, i) =>
    arms.forEach((b, j) => {
      const sum = keys.reduce(
        (total, key) => total + (valueOf(a, key) === valueOf(b, key) ? 0 : (costs[key] ?? 0)),
        0,
      );
      arm[i * arms.length + j] = sum;
      const rig = valueOf(a, "rig");
      if (rig !== null && rig === valueOf(b, "rig") && Object.hasOwn(pauses, String(rig)))
        pause[i * arms.length + j] = pauses[String(rig)] ?? 0;
    }),
  );
  return { title: costs.title ?? 0, arm, pause };
}

const valueOf = (arm: Record<string, unknown>, key: string) =>
  Object.hasOwn(arm, key) ? (arm[key] ?? null) : null;
