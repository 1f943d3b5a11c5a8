export {
  knockOf,
  mayPass,
  nobody,
  type Actor,
  type Asker,
  type Knock,
} from "./actor";
export { sharedPage, viewPeople } from "./people";
export { viewWorkshop } from "./viewWorkshop";
export { Problem, asProblem } from "./problem";
export { Room } from "./room";
export { countRequest } from "./metrics";
export { journal } from "./journal";
export { useCases, type Asked } from "./doors";
export { startWork } from "./work";
export { lastChange, watchChanges } from "./watchChanges";
export { viewBench } from "./benchUse";
export { viewKit } from "./viewKit";
export { viewJob } from "./viewJob";
export { viewTrial } from "./viewTrial";
export { viewPlan } from "./planTrial";
export { listProfiles, viewProfile } from "./profiles";
export { viewProfileRecipe, viewRecipe } from "./recipe";
export { listCampaigns, viewCampaign, viewCampaignKit } from "./campaigns";
export { listAbilities } from "./abilities";
export { listCrashes, viewBuild, viewLog } from "./log";
export { viewBoard } from "./board";
export { listOthers } from "./publish";
export { viewJobs } from "./viewJobs";
export { viewNewRun } from "./viewNewRun";
export { viewDemo } from "./demo/seed";
export { viewHome } from "./viewHome";
export { viewLook } from "./viewLook";
export { viewRigs, viewTitles } from "./listKit";
export { viewEngine, viewPreflight, viewRig, viewSystem, viewSystems, viewTitle } from "./changeKit";
export { viewHouseRules } from "./houseRules";
export { answeredOnce } from "./answeredOnce";
