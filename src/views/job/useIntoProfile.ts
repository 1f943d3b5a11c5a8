import { useRouter } from "next/navigation";
import { call } from "@/contract/client";
import { besideValues } from "@/core/profile";
import type { JobRow } from "@/core/records";
import type { ThreadRun } from "@/contract";
import { say, toast } from "@/ui";

/**
 * Puts what a run was made with into its title's layer, where the profile says otherwise: as a run, held
 * against nothing.
 */
export function useIntoProfile(
  { rigId, engineId, titleId }: Pick<JobRow, "rigId" | "engineId" | "titleId">,
  run: Pick<ThreadRun, "id" | "settings" | "conditions">,
): () => Promise<void> {
  const router = useRouter();
  return async () => {
    const profile = await call("viewProfile", { query: { rig: rigId, engine: engineId, title: titleId } });
    if (!profile.ok) return void toast.error(profile.refusal.title, { description: profile.refusal.fix });
    const made = { ...run.settings, ...besideValues({ conditions: run.conditions }) };
    const values = profile.answer.rows.flatMap(({ key, value }) => {
      const ran = made[key];
      return ran === undefined || ran === value ? [] : [{ key, value: ran }];
    });
    if (values.length === 0) return void toast("The profile says all of it already.");
    const sent = await call("setProfileValues", {
      body: {
        rigId,
        engineId,
        layer: "title",
        titleId,
        values,
        origin: { kind: "run", runId: run.id },
        saw: profile.answer.saw,
      },
    });
    if (!sent.ok) return void toast.error(sent.refusal.title, { description: sent.refusal.fix });
    toast(`${say.count(sent.answer.changed, "value")} put into the title's layer.`, {
      action: {
        label: "Profile",
        onClick: () => router.push(`/profiles?rig=${rigId}&engine=${engineId}&title=${titleId}`),
      },
    });
  };
}
