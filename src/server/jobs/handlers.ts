import { mendJob } from "./mendJob";
import type { jobsEndpoints } from "@/contract/jobs";
import { made } from "@/server/request/made";
import type { Handlers } from "@/server/request/request";
import { addJob } from "./addJob";
import { beginTitle } from "./beginTitle";
import { changeBench, viewBench } from "./benchUse";
import { changeJob, copyJob, viewJobChoices } from "./changeJob";
import { closeJob, reopenJob } from "./closeJob";
import { judgeAnew } from "./judgeAnew";
import { nameJob } from "./nameJob";
import { nameSwitch } from "./nameSwitch";
import { saveJob } from "./saveFiles";
import { viewDiagnosis, viewJob } from "./viewJob";
import { viewJobs } from "./viewJobs";

export const jobsHandlers: Handlers<Exclude<keyof typeof jobsEndpoints, "events">> = {
  viewBench: async () => viewBench(),
  changeBench: async ({ actor, body, saw }) => changeBench(actor, body, saw),
  listJobs: async ({ query }) => viewJobs(query),
  beginTitle: async ({ actor, body }) => made(beginTitle(actor, body)),
  addJob: async ({ actor, body }) => made(addJob(actor, body)),
  nameJob: async ({ actor, body }) => nameJob(actor, body),
  nameSwitch: async ({ actor, id, body }) => nameSwitch(actor, id, body),
  viewJob: async ({ id }) => viewJob(id),
  changeJob: async ({ actor, id, body, saw }) => changeJob(actor, id, body, saw),
  viewJobChoices: async ({ id }) => viewJobChoices(id),
  saveJob: async ({ id }) => saveJob(id),
  copyJob: async ({ actor, id }) => made(copyJob(actor, id)),
  mendJob: async ({ actor, id, body }) => mendJob(actor, id, body),
  closeJob: async ({ actor, id, body, saw }) => closeJob(actor, id, body, saw),
  reopenJob: async ({ actor, id, saw }) => reopenJob(actor, id, saw),
  judgeAnew: async ({ actor, id }) => judgeAnew(actor, id),
  viewDiagnosis: async ({ id, query }) => viewDiagnosis(id, query.run),
};
