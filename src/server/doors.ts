import { catalogueJsonSchema } from "@/core/kit";
import type { DoorName } from "@/contract";
import { profileJsonSchema } from "@/core/profile";
import { publicationJsonSchema } from "@/core/publication";
import { recipeJsonSchema } from "@/core/recipe";
import { find, listObservations, outdatedCount } from "@/data";
import { mayPass, type Asker, type Knock } from "./actor";
import { listAbilities, putAbility } from "./abilities";
import { addJob } from "./addJob";
import { viewBoard, viewBoardTitles } from "./board";
import { campaignCalendar } from "./campaignCalendar";
import * as campaigns from "./campaigns";
import { changeBench, viewBench } from "./benchUse";
import * as kit from "./changeKit";
import { changeRun, viewRunEdits } from "./changeRun";
import { changeJob, copyJob, viewJobChoices } from "./changeJob";
import { closeJob, reopenJob } from "./closeJob";
import { decideTrial, undecideTrial } from "./decideTrial";
import { bringDemo, removeDemo, viewDemo } from "./demo/seed";
import { addFault, changeFault } from "./faults";
import { heavy } from "./heavy";
import { addHouseRules, changeHouseRules, rejudge, viewHouseRules } from "./houseRules";
import { appendRun, finishRun, importRun, openRun } from "./keepRun";
import { viewRigs, viewTitles } from "./listKit";
import { judgeAnew } from "./judgeAnew";
import { listCrashes, viewBuild, viewLog } from "./log";
import { readMetrics } from "./metrics";
import { nameJob } from "./nameJob";
import { addTrial, changeTrial } from "./planTrial";
import { carryProfile, liftValue, planCheck, setProfileValues, undoProfileValue } from "./changeProfile";
import { listProfiles, viewProfile } from "./viewProfile";
import { saveProfile, takeProfile } from "./profileFile";
import { dropPublication, listOthers, pageFonts, publish, takePublication, viewOther } from "./publish";
import { readTrace } from "./readTrace";
import { addStills, listStills, readStill } from "./stills";
import { viewProfileRecipe, viewRecipe } from "./recipe";
import { readRunCsv, saveJob } from "./saveFiles";
import { tallyRun } from "./tallyRun";
import { viewDiagnosis, viewJob } from "./viewJob";
import { viewPlaces } from "./viewPlaces";
import { viewHealth } from "./viewHealth";
import { viewWorkshop } from "./viewWorkshop";
import * as people from "./people";
import { viewJobs } from "./viewJobs";
import { reckonTrial, viewOutcome, viewTrial } from "./viewTrial";

/** What a door was asked, and by whom. */
export interface Asked {
  actor: Asker;
  /** Who knocks, from where. */
  knock: Knock;
  /** What the browser or program calls itself. */
  agent: string;
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

/** The doors described: the same as long as this runs. */
let doorsFile: Uint8Array<ArrayBuffer> | null = null;

/** What is done at every door. `events` is a stream, and no use-case. */
export const useCases: Record<Exclude<DoorName, "events">, (asked: Asked) => Promise<unknown>> = {
  viewBench: async () => viewBench(),
  changeBench: async ({ actor, body, saw }) => changeBench(actor, body, saw),

  find: async ({ query }) => ({
    rows: query.search?.trim() ? await find(query.search.trim().slice(0, 200)) : [],
  }),
  viewDemo: async () => viewDemo(),
  bringDemo: async ({ actor }) => bringDemo(actor),
  removeDemo: async ({ actor }) => removeDemo(actor),

  listJobs: async ({ query }) => viewJobs(query),
  addJob: async ({ actor, body }) => made(addJob(actor, body)),
  nameJob: async ({ actor, body }) => nameJob(actor, body),
  viewJob: async ({ id }) => viewJob(id),
  changeJob: async ({ actor, id, body, saw }) => changeJob(actor, id, body, saw),
  viewJobChoices: async ({ id }) => viewJobChoices(id),
  saveJob: async ({ id }) => saveJob(id),
  copyJob: async ({ actor, id }) => made(copyJob(actor, id)),
  closeJob: async ({ actor, id, body, saw }) => closeJob(actor, id, body ?? {}, saw),
  reopenJob: async ({ actor, id, saw }) => reopenJob(actor, id, saw),
  judgeAnew: async ({ actor, id }) => judgeAnew(actor, id),
  viewPlaces: async ({ id }) => viewPlaces(id),
  viewDiagnosis: async ({ id, query }) => viewDiagnosis(id, query.run ?? ""),

  importRun: async ({ actor, body }) => importRun(actor, body as Uint8Array<ArrayBuffer>),
  tallyRun: async ({ actor, body }) => tallyRun(actor, body),
  openRun: async ({ actor, body }) => openRun(actor, body),
  appendRun: async ({ actor, id, body }) => appendRun(actor, id, body),
  finishRun: async ({ actor, id, body }) => finishRun(actor, id, body),
  changeRun: async ({ actor, id, body, saw }) => changeRun(actor, id, body, saw),
  readRunCsv: async ({ id }) => readRunCsv(id),
  viewRunEdits: async ({ id }) => viewRunEdits(id),
  readTrace: async ({ id }) => readTrace(id),
  addStills: async ({ actor, id, body }) => addStills(actor, id, body),
  listStills: async ({ id }) => listStills(id),
  readStill: async ({ id }) => readStill(id),

  addFault: async ({ actor, body }) => made(addFault(actor, body)),
  removeFault: async ({ actor, id }) => changeFault(actor, id, true),
  restoreFault: async ({ actor, id }) => changeFault(actor, id, false),

  addTrial: async ({ actor, body }) => addTrial(actor, body),
  viewTrial: async ({ id }) => viewTrial(id),
  changeTrial: async ({ actor, id, body, saw }) => changeTrial(actor, id, body, saw),
  viewOutcome: async ({ id }) => viewOutcome(id),
  reckonTrial: async ({ id }) => reckonTrial(id),
  decideTrial: async ({ actor, id, body, saw }) => decideTrial(actor, id, body, saw),
  undecideTrial: async ({ actor, id, saw }) => undecideTrial(actor, id, saw),

  listProfiles: async () => listProfiles(),
  viewProfile: async ({ query }) => viewProfile(query),
  setProfileValues: async ({ actor, body }) => setProfileValues(actor, body),
  undoProfileValue: async ({ actor, body }) => undoProfileValue(actor, body),
  liftValue: async ({ actor, body }) => liftValue(actor, body),
  carryProfile: async ({ actor, body }) => carryProfile(actor, body),
  planCheck: async ({ actor, body }) => planCheck(actor, body),
  viewRecipe: async ({ id }) => viewRecipe(id),
  viewProfileRecipe: async ({ query }) => viewProfileRecipe(query),
  recipeSchema: async () => recipeJsonSchema(),
  saveProfile: async ({ query }) => saveProfile(query),
  profileSchema: async () => profileJsonSchema(),
  takeProfile: async ({ actor, body }) => takeProfile(actor, body),

  listCampaigns: async () => campaigns.listCampaigns(),
  addCampaign: async ({ actor, body }) => made(campaigns.addCampaign(actor, body)),
  planTitles: async ({ query }) => campaigns.planTitles(query),
  viewCampaign: async ({ id }) => campaigns.viewCampaign(id),
  changeCampaign: async ({ actor, id, body, saw }) => campaigns.changeCampaign(actor, id, body, saw),
  orderCampaign: async ({ actor, id, body, saw }) => campaigns.orderCampaign(actor, id, body, saw),
  takeRun: async ({ actor, id, body }) => campaigns.takeRun(actor, id, body),
  releaseRun: async ({ actor, id, body }) => campaigns.releaseRun(actor, id, body),
  answerRun: async ({ actor, id, body }) => campaigns.answerRun(actor, id, body),
  giveTime: async ({ actor, id, body }) => campaigns.giveTime(actor, id, body),
  reckonCampaign: async ({ id, body }) => campaigns.reckonCampaign(id, body),
  campaignCalendar: async ({ id, query }) => campaignCalendar(id, query),
  viewBoard: async ({ query }) => viewBoard(query),
  viewBoardTitles: async ({ query }) => viewBoardTitles(query),
  publish: async ({ query }) => publish(query),
  publicationSchema: async () => publicationJsonSchema(),
  pageFonts: async () => pageFonts(),
  listOthers: async () => listOthers(),
  viewOther: async ({ id }) => viewOther(id),
  takePublication: async ({ actor, body }) => made(takePublication(actor, body)),
  dropPublication: async ({ actor, id }) => dropPublication(actor, id),
  listObservations: async () => ({ rows: await listObservations() }),
  viewLog: async ({ query }) => viewLog(query),
  listCrashes: async ({ query }) => listCrashes(query),
  viewBuild: async ({ id }) => viewBuild(id),
  listAbilities: async () => listAbilities(),
  putAbility: async ({ actor, body }) => putAbility(actor, body),

  listRigs: async ({ query }) => viewRigs(query),
  addRig: async ({ actor, body }) => made(kit.addRig(actor, body)),
  changeRigs: async ({ actor, body }) => kit.changeRigs(actor, body),
  viewRig: async ({ id }) => kit.viewRig(id),
  reviseRig: async ({ actor, id, body, saw }) => kit.reviseRig(actor, id, body, saw),
  duplicateRig: async ({ actor, id }) => made(kit.duplicateRig(actor, id)),
  addSystem: async ({ actor, body }) => made(kit.addSystem(actor, body)),
  viewSystem: async ({ id }) => kit.viewSystem(id),
  changeSystem: async ({ actor, id, body, saw }) => kit.changeSystem(actor, id, body, saw),
  listTitles: async ({ query }) => viewTitles(query),
  addTitle: async ({ actor, body }) => made(kit.addTitle(actor, body)),
  changeTitles: async ({ actor, body }) => kit.changeTitles(actor, body),
  viewTitle: async ({ id }) => kit.viewTitle(id),
  changeTitle: async ({ actor, id, body, saw }) => kit.changeTitle(actor, id, body, saw),
  addEngine: async ({ actor, body }) => made(kit.addEngine(actor, body)),
  viewEngine: async ({ id }) => kit.viewEngine(id),
  changeEngine: async ({ actor, id, body, saw }) => kit.changeEngine(actor, id, body, saw),
  exportCatalogue: async ({ id }) => kit.exportCatalogue(id),
  importCatalogue: async ({ actor, id, body, saw }) => kit.importCatalogue(actor, id, textOf(body), saw),
  catalogueSchema: async () => catalogueJsonSchema(),
  addPreflight: async ({ actor, body }) => kit.addPreflight(actor, body),
  removePreflight: async ({ actor, id }) => kit.removePreflight(actor, id),
  addHouseRules: async ({ actor, body }) => made(addHouseRules(actor, body)),
  viewHouseRules: async ({ id }) => viewHouseRules(id),
  changeHouseRules: async ({ actor, id, body, saw }) => changeHouseRules(actor, id, body, saw),
  rejudge: async ({ actor, id, body }) => rejudge(actor, id, body),

  viewWork: async () => ({ outdatedRuns: await outdatedCount() }),
  viewHealth: async ({ knock }) => viewHealth(mayPass(knock.asker, "reads")),
  signIn: async ({ knock, agent, body }) => people.signIn(body, { ...knock, agent }),
  signOut: async ({ knock }) => people.signOut(knock),
  endSession: async ({ actor, id }) => people.endSession(actor, id),
  changePassphrase: async ({ knock, body }) => people.changePassphrase(knock, body),
  viewPeople: async () => people.viewPeople(),
  removePerson: async ({ actor, id }) => people.removePerson(actor, id),
  addProgram: async ({ actor, body }) => people.addProgram(actor, body),
  revokeProgram: async ({ actor, id }) => people.revokeProgram(actor, id),
  addLink: async ({ actor, body }) => people.addLink(actor, body),
  revokeLink: async ({ actor, id }) => people.revokeLink(actor, id),
  viewWorkshop: async () => viewWorkshop(),
  metrics: async () => readMetrics(),
  openapi: async () => (doorsFile ??= await heavy("doorsFile", [])),
};
