import { saying } from "@/core/said";

/** Sentences that this folder says, by their codes, with the figures in each; core/words puts them into words. */
export interface KitCodes {
  "conditions.against": { condition: "pluggedIn" | "docked" | "cooler"; is: boolean };
}

export const said = saying<KitCodes>();
