import { boardHandlers } from "./board/handlers";
import { campaignsHandlers } from "./campaigns/handlers";
import { jobsHandlers } from "./jobs/handlers";
import { kitHandlers } from "./kit/handlers";
import { devicesHandlers, unattendedHandlers } from "./devices/handlers";
import { peopleHandlers } from "./people/handlers";
import { profilesHandlers } from "./profiles/handlers";
import { runsHandlers } from "./runs/handlers";
import { systemHandlers } from "./system/handlers";
import { trialsHandlers } from "./trials/handlers";
import type { Handlers } from "./request/request";

/** What is done at every endpoint. */
export const handlers: Handlers = {
  ...peopleHandlers,
  ...devicesHandlers,
  ...unattendedHandlers,
  ...runsHandlers,
  ...profilesHandlers,
  ...jobsHandlers,
  ...campaignsHandlers,
  ...trialsHandlers,
  ...kitHandlers,
  ...systemHandlers,
  ...boardHandlers,
};
