import { z } from "zod";
import { putLabel, setDeleted } from "@/data";
import { notFound } from "./problem";

const changeSchema = z.object({
  label: z.string().trim().max(120).optional(),
  deleted: z.boolean().optional(),
});

/** Renames a run, hides it, or brings it back. */
export async function changeRun(id: string, input: unknown): Promise<void> {
  const { label, deleted } = changeSchema.parse(input);
  const done = [
    deleted === undefined || (await setDeleted(id, deleted)),
    label === undefined || (await putLabel(id, label)),
  ];
  if (done.includes(false)) throw notFound("run");
}
