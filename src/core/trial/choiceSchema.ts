import { z } from "@/core/schema";
import { mostArms } from "./shapes";

/** Keep an arm, or put back what was in force before. */
export const choiceSchema = z
  .object({
    choice: z.enum(["keep", "put back"]),
    /** The arm kept; null when put back. */
    arm: z
      .number()
      .int()
      .min(0)
      .max(mostArms - 1)
      .nullable(),
    reason: z.string().trim().max(400),
  })
  .refine(({ choice, arm }) => (choice === "keep") === (arm !== null), {
    path: ["arm"],
    message: "Say which arm is kept.",
  });

export type Choice = z.infer<typeof choiceSchema>;
