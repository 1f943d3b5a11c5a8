import "@/server/work";
import { thisMachine, type Actor } from "@/server/actor";
import { addJob as addJobBy } from "@/server/addJob";
import { changeBench as changeBenchBy } from "@/server/benchUse";
import * as kit from "@/server/changeKit";
import { changeRun as changeRunBy } from "@/server/changeRun";
import * as changing from "@/server/changeJob";
import * as closing from "@/server/closeJob";
import * as deciding from "@/server/decideTrial";
import * as fault from "@/server/faults";
import * as rules from "@/server/houseRules";
import * as run from "@/server/keepRun";
import * as plan from "@/server/planTrial";
import { tallyRun as tallyRunBy } from "@/server/tallyRun";

/** A use-case done by whoever sits at this machine. */
const by =
  <Rest extends unknown[], Done>(useCase: (actor: Actor, ...rest: Rest) => Done) =>
  (...rest: Rest): Done =>
    useCase(thisMachine, ...rest);

/* Use-cases as tests call them. */
export const addJob = by(addJobBy);
export const changeBench = by(changeBenchBy);
export const changeRun = by(changeRunBy);
export const tallyRun = by(tallyRunBy);
export const addFault = by(fault.addFault);
export const changeFault = by(fault.changeFault);
export const addTrial = by(plan.addTrial);
export const changeTrial = by(plan.changeTrial);
export const decideTrial = by(deciding.decideTrial);
export const undecideTrial = by(deciding.undecideTrial);
export const changeJob = by(changing.changeJob);
export const closeJob = by(closing.closeJob);
export const reopenJob = by(closing.reopenJob);
export const importRun = by(run.importRun);
export const keepRun = by(run.keepRun);
export const openRun = by(run.openRun);
export const appendRun = by(run.appendRun);
export const finishRun = by(run.finishRun);
export const addRig = by(kit.addRig);
export const addSystem = by(kit.addSystem);
export const addTitle = by(kit.addTitle);
export const addEngine = by(kit.addEngine);
export const reviseRig = by(kit.reviseRig);
export const duplicateRig = by(kit.duplicateRig);
export const changeRigs = by(kit.changeRigs);
export const changeTitle = by(kit.changeTitle);
export const changeTitles = by(kit.changeTitles);
export const changeEngine = by(kit.changeEngine);
export const importCatalogue = by(kit.importCatalogue);
export const addPreflight = by(kit.addPreflight);
export const removePreflight = by(kit.removePreflight);
export const addHouseRules = by(rules.addHouseRules);
export const changeHouseRules = by(rules.changeHouseRules);
export const rejudge = by(rules.rejudge);
