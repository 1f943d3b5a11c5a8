import { expose } from "comlink";
import { orderOf, type ScheduleFacts, type Slot } from "@/core/campaign";

const api = {
  /** An order of a campaign's planned runs, searched for as long as the planner usually does. */
  order: (facts: ScheduleFacts): Slot[] => orderOf(facts),
};

export type Planner = typeof api;
expose(api);
