import { moveRuns } from "./moveRuns";
import type { runsEndpoints } from "@/contract/runs";
import { made } from "@/server/request/made";
import type { Handlers } from "@/server/request/request";
import { readRunCsv } from "@/server/jobs/saveFiles";
import { viewPlaces } from "./viewPlaces";
import { changeRun, viewRunEdits } from "./changeRun";
import { addFault, changeFault } from "./faults";
import {
  appendRun,
  finishRun,
  importRun,
  keepRunFile,
  markRun,
  openRun,
  readRunFile,
  rereadRun,
} from "./keepRun";
import { readTrace } from "./readTrace";
import { addStills, listStills, readStill } from "./stills";
import { tallyRun } from "./tallyRun";

export const runsHandlers: Handlers<Exclude<keyof typeof runsEndpoints, "events">> = {
  viewPlaces: async ({ id }) => viewPlaces(id),
  importRun: async ({ actor, body }) => importRun(actor, body),
  tallyRun: async ({ actor, body }) => tallyRun(actor, body),
  openRun: async ({ actor, body }) => openRun(actor, body),
  appendRun: async ({ actor, id, body }) => appendRun(actor, id, body),
  markRun: async ({ actor, id, body }) => markRun(actor, id, body),
  finishRun: async ({ actor, id, body }) => finishRun(actor, id, body),
  changeRun: async ({ actor, id, body, saw }) => changeRun(actor, id, body, saw),
  moveRuns: async ({ actor, body }) => moveRuns(actor, body),
  rereadRun: async ({ actor, id, body }) => rereadRun(actor, id, body),
  keepRunFile: async ({ id, query, body }) => keepRunFile(id, query.name, body),
  readRunFile: async ({ id }) => readRunFile(id),
  readRunCsv: async ({ id }) => readRunCsv(id),
  viewRunEdits: async ({ id }) => viewRunEdits(id),
  readTrace: async ({ id }) => readTrace(id),
  addStills: async ({ actor, id, body }) => addStills(actor, id, body),
  listStills: async ({ id }) => listStills(id),
  readStill: async ({ id }) => readStill(id),
  addFault: async ({ actor, body }) => made(addFault(actor, body)),
  removeFault: async ({ actor, id }) => changeFault(actor, id, true),
  restoreFault: async ({ actor, id }) => changeFault(actor, id, false),
};
