import { catalogueJsonSchema } from "@/core/kit";
import { openApi, type DoorName } from "@/contract";
import { outdatedCount } from "@/data";
import type { Actor } from "./actor";
import { addJob } from "./addJob";
import { changeBench, viewBench } from "./benchUse";
import * as kit from "./changeKit";
import { changeRun } from "./changeRun";
import { changeJob, closeJob, reopenJob } from "./closeJob";
import { decideTrial, undecideTrial } from "./decideTrial";
import { addFault, changeFault } from "./faults";
import { addHouseRules, changeHouseRules, rejudge, viewHouseRules } from "./houseRules";
import { appendRun, finishRun, importRun, openRun } from "./keepRun";
import { viewRigs, viewTitles } from "./listKit";
import { addTrial, changeTrial } from "./planTrial";
import { readTrace } from "./readTrace";
import { tallyRun } from "./tallyRun";
import { viewDiagnosis, viewJob } from "./viewJob";
import { viewHealth } from "./viewHealth";
import { viewJobs } from "./viewJobs";
import { reckonTrial, viewTrial } from "./viewTrial";

/** What a door was asked, and by whom. */
export interface Asked {
  actor: Actor;
  /** The id in the path; empty where it has none. */
  id: string;
  query: Record<string, string>;
  /** Of JSON what it says; of bytes the bytes. */
  body: unknown;
  /** The version that an edit saw; null where it doesn't say. */
  saw: number | null;
}

const made = async (id: Promise<string>) => ({ id: await id });
const textOf = (body: unknown) => new TextDecoder().decode(body as Uint8Array);

/** What is done at every door. `events` is a stream, and no use-case. */
export const useCases: Record<Exclude<DoorName, "events">, (asked: Asked) => Promise<unknown>> = {
  viewBench: () => viewBench(),
  changeBench: ({ actor, body, saw }) => changeBench(actor, body, saw),

  listJobs: ({ query }) => viewJobs(query),
  addJob: ({ actor, body }) => made(addJob(actor, body)),
  viewJob: ({ id }) => viewJob(id),
  changeJob: ({ actor, id, body, saw }) => changeJob(actor, id, body, saw),
  closeJob: ({ actor, id, body, saw }) => closeJob(actor, id, body ?? {}, saw),
  reopenJob: ({ actor, id, saw }) => reopenJob(actor, id, saw),
  viewDiagnosis: ({ id, query }) => viewDiagnosis(id, query.run ?? ""),

  importRun: ({ actor, body }) => importRun(actor, body as Uint8Array),
  tallyRun: ({ actor, body }) => tallyRun(actor, body),
  openRun: ({ actor, body }) => openRun(actor, body),
  appendRun: ({ actor, id, body }) => appendRun(actor, id, body),
  finishRun: ({ actor, id, body }) => finishRun(actor, id, body),
  changeRun: ({ actor, id, body, saw }) => changeRun(actor, id, body, saw),
  readTrace: ({ id }) => readTrace(id),

  addFault: ({ actor, body }) => made(addFault(actor, body)),
  removeFault: ({ actor, id }) => changeFault(actor, id, true),
  restoreFault: ({ actor, id }) => changeFault(actor, id, false),

  addTrial: ({ actor, body }) => addTrial(actor, body),
  viewTrial: ({ id }) => viewTrial(id),
  changeTrial: ({ actor, id, body, saw }) => changeTrial(actor, id, body, saw),
  reckonTrial: ({ id }) => reckonTrial(id),
  decideTrial: ({ actor, id, body, saw }) => decideTrial(actor, id, body, saw),
  undecideTrial: ({ actor, id, saw }) => undecideTrial(actor, id, saw),

  listRigs: ({ query }) => viewRigs(query),
  addRig: ({ actor, body }) => made(kit.addRig(actor, body)),
  changeRigs: ({ actor, body }) => kit.changeRigs(actor, body),
  viewRig: ({ id }) => kit.viewRig(id),
  reviseRig: ({ actor, id, body, saw }) => kit.reviseRig(actor, id, body, saw),
  duplicateRig: ({ actor, id }) => made(kit.duplicateRig(actor, id)),
  addSystem: ({ actor, body }) => made(kit.addSystem(actor, body)),
  viewSystem: ({ id }) => kit.viewSystem(id),
  changeSystem: ({ actor, id, body, saw }) => kit.changeSystem(actor, id, body, saw),
  listTitles: ({ query }) => viewTitles(query),
  addTitle: ({ actor, body }) => made(kit.addTitle(actor, body)),
  changeTitles: ({ actor, body }) => kit.changeTitles(actor, body),
  viewTitle: ({ id }) => kit.viewTitle(id),
  changeTitle: ({ actor, id, body, saw }) => kit.changeTitle(actor, id, body, saw),
  addEngine: ({ actor, body }) => made(kit.addEngine(actor, body)),
  viewEngine: ({ id }) => kit.viewEngine(id),
  changeEngine: ({ actor, id, body, saw }) => kit.changeEngine(actor, id, body, saw),
  exportCatalogue: ({ id }) => kit.exportCatalogue(id),
  importCatalogue: ({ actor, id, body, saw }) => kit.importCatalogue(actor, id, textOf(body), saw),
  catalogueSchema: async () => catalogueJsonSchema(),
  addPreflight: ({ actor, body }) => kit.addPreflight(actor, body),
  removePreflight: ({ actor, id }) => kit.removePreflight(actor, id),
  addHouseRules: ({ actor, body }) => made(addHouseRules(actor, body)),
  viewHouseRules: ({ id }) => viewHouseRules(id),
  changeHouseRules: ({ actor, id, body, saw }) => changeHouseRules(actor, id, body, saw),
  rejudge: ({ actor, id, body }) => rejudge(actor, id, body),

  viewWork: async () => ({ outdatedRuns: await outdatedCount() }),
  viewHealth: () => viewHealth(),
  openapi: async () => openApi(),
};
