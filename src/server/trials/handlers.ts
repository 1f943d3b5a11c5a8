import type { trialsEndpoints } from "@/contract/trials";
import type { Handlers } from "@/server/request/request";
import { assignArms } from "./assignArms";
import { decideTrial, undecideTrial } from "./decideTrial";
import { addTrial, changeTrial } from "./planTrial";
import { reckonTrial, viewOutcome, viewTrial } from "./viewTrial";

export const trialsHandlers: Handlers<Exclude<keyof typeof trialsEndpoints, "events">> = {
  addTrial: async ({ actor, body }) => addTrial(actor, body),
  viewTrial: async ({ id }) => viewTrial(id),
  changeTrial: async ({ actor, id, body, saw }) => changeTrial(actor, id, body, saw),
  assignArms: async ({ actor, id, body }) => assignArms(actor, id, body),
  viewOutcome: async ({ id }) => viewOutcome(id),
  reckonTrial: async ({ id }) => reckonTrial(id),
  decideTrial: async ({ actor, id, body, saw }) => decideTrial(actor, id, body, saw),
  undecideTrial: async ({ actor, id, saw }) => undecideTrial(actor, id, saw),
};
