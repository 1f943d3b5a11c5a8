export { Problem, asProblem, notFound } from "./problem";
export { changeBench, viewBench } from "./benchUse";
export { addEngine, addRig, addSystem, addTitle } from "./addKit";
export { viewKit } from "./viewKit";
export { addJob } from "./addJob";
export { importRun, keepRun, type ImportedRun } from "./importRun";
export { tallyRun, tallySchema } from "./tallyRun";
export { viewDiagnosis, viewJob } from "./viewJob";
export { addTrial, adviseTrial, changeTrial, decideTrial, undecideTrial, viewPlan, viewTrial } from "./trials";
export { changeJob, closeJob, reopenJob } from "./closeJob";
export { addFault, changeFault } from "./faults";
export { viewJobs } from "./viewJobs";
export { viewNewRun } from "./viewNewRun";
export { readTrace } from "./readTrace";
export { changeRun } from "./changeRun";
export { viewHome } from "./viewHome";
export { viewHealth } from "./viewHealth";
export { viewRigs, viewTitles } from "./listKit";
export {
  addPreflight,
  changeEngine,
  changeRigs,
  changeSystem,
  changeTitle,
  changeTitles,
  duplicateRig,
  exportCatalogue,
  importCatalogue,
  removePreflight,
  reviseRig,
  viewEngine,
  viewPreflight,
  viewRig,
  viewSystem,
  viewSystems,
  viewTitle,
} from "./changeKit";
export { addHouseRules, changeHouseRules, rejudge, viewHouseRules } from "./houseRules";
