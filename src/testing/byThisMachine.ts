import "@/server/system/work";
import { readBody, type Body, type EndpointName } from "@/contract";
import { thisMachine, type Actor } from "@/server/actor";
import { addJob as addJobBy } from "@/server/jobs/addJob";
import { changeBench as changeBenchBy } from "@/server/jobs/benchUse";
import * as kit from "@/server/kit/changeKit";
import { changeRun as changeRunBy } from "@/server/runs/changeRun";
import * as changing from "@/server/jobs/changeJob";
import * as closing from "@/server/jobs/closeJob";
import * as deciding from "@/server/trials/decideTrial";
import * as fault from "@/server/runs/faults";
import * as rules from "@/server/kit/houseRules";
import * as run from "@/server/runs/keepRun";
import * as plan from "@/server/trials/planTrial";
import { tallyRun as tallyRunBy } from "@/server/runs/tallyRun";

/** A use-case done by whoever sits at this machine. */
const by =
  <Rest extends unknown[], Done>(useCase: (actor: Actor, ...rest: Rest) => Done) =>
  (...rest: Rest): Done =>
    useCase(thisMachine, ...rest);

/** One whose body is read by its endpoint's schema, as the route does. */
const sent =
  <Name extends EndpointName, Rest extends unknown[], Done>(
    name: Name,
    useCase: (actor: Actor, body: Body<Name>, ...rest: Rest) => Promise<Done>,
  ) =>
  async (body: unknown, ...rest: Rest): Promise<Done> =>
    useCase(thisMachine, readBody(name, body), ...rest);

/** The same, of a thing that is named by its id. */
const sentTo =
  <Name extends EndpointName, Rest extends unknown[], Done>(
    name: Name,
    useCase: (actor: Actor, id: string, body: Body<Name>, ...rest: Rest) => Promise<Done>,
  ) =>
  async (id: string, body: unknown, ...rest: Rest): Promise<Done> =>
    useCase(thisMachine, id, readBody(name, body), ...rest);

/* Use-cases as tests call them. */
export const addJob = sent("addJob", addJobBy);
export const changeBench = sent("changeBench", changeBenchBy);
export const changeRun = sentTo("changeRun", changeRunBy);
export const tallyRun = sent("tallyRun", tallyRunBy);
export const addFault = sent("addFault", fault.addFault);
export const changeFault = by(fault.changeFault);
export const addTrial = sent("addTrial", plan.addTrial);
export const changeTrial = sentTo("changeTrial", plan.changeTrial);
export const decideTrial = sentTo("decideTrial", deciding.decideTrial);
export const undecideTrial = by(deciding.undecideTrial);
export const changeJob = sentTo("changeJob", changing.changeJob);
export const closeJob = sentTo("closeJob", closing.closeJob);
export const reopenJob = by(closing.reopenJob);
export const importRun = by(run.importRun);
export const keepRun = by(run.keepRun);
export const openRun = sent("openRun", run.openRun);
export const appendRun = sentTo("appendRun", run.appendRun);
export const finishRun = sentTo("finishRun", run.finishRun);
export const addRig = sent("addRig", kit.addRig);
export const addSystem = sent("addSystem", kit.addSystem);
export const addTitle = sent("addTitle", kit.addTitle);
export const addEngine = sent("addEngine", kit.addEngine);
export const reviseRig = sentTo("reviseRig", kit.reviseRig);
export const duplicateRig = by(kit.duplicateRig);
export const changeRigs = sent("changeRigs", kit.changeRigs);
export const changeTitle = sentTo("changeTitle", kit.changeTitle);
export const changeTitles = sent("changeTitles", kit.changeTitles);
export const changeEngine = sentTo("changeEngine", kit.changeEngine);
export const importCatalogue = by(kit.importCatalogue);
export const addPreflight = sent("addPreflight", kit.addPreflight);
export const removePreflight = by(kit.removePreflight);
export const addHouseRules = sent("addHouseRules", rules.addHouseRules);
export const changeHouseRules = sentTo("changeHouseRules", rules.changeHouseRules);
export const rejudge = sentTo("rejudge", rules.rejudge);
