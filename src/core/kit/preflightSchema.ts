import { z } from "@/core/schema";
import { preflightWhens } from "./preflightWhens";

export const preflightItemSchema = z.object({
  label: z.string().trim().min(1, "Say what to check.").max(200),
  why: z.string().trim().max(300),
  when: z.enum(preflightWhens),
});
export type PreflightItem = z.infer<typeof preflightItemSchema>;

/** One item as it stood when a run was made. */
export const preflightTickSchema = z.object({ label: z.string().max(200), ticked: z.boolean() });
export type PreflightTick = z.infer<typeof preflightTickSchema>;
