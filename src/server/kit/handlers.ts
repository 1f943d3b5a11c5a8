import { merge, viewKitNames, viewMerge } from "./merge";
import { catalogueJsonSchema } from "@/core/kit";
import { jsonFile } from "@/server/request/jsonFile";
import type { kitEndpoints } from "@/contract/kit";
import { made } from "@/server/request/made";
import type { Handlers } from "@/server/request/request";
import { listAbilities, putAbility } from "./abilities";
import { addTitles, likeTitles } from "./addTitles";
import {
  addEngine,
  addPreflight,
  addRig,
  addSystem,
  addTitle,
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
  viewRig,
  viewSystem,
  viewTitle,
} from "./changeKit";
import { addHouseRules, changeHouseRules, rejudge, viewHouseRules } from "./houseRules";
import { viewRigs, viewTitles } from "./listKit";

export const kitHandlers: Handlers<Exclude<keyof typeof kitEndpoints, "events">> = {
  viewKitNames: async () => viewKitNames(),
  viewMerge: async ({ query }) => viewMerge(query),
  merge: async ({ actor, body }) => merge(actor, body),
  listAbilities: async () => listAbilities(),
  putAbility: async ({ actor, body }) => putAbility(actor, body),
  listRigs: async ({ query }) => viewRigs(query),
  addRig: async ({ actor, body }) => made(addRig(actor, body)),
  changeRigs: async ({ actor, body }) => changeRigs(actor, body),
  viewRig: async ({ id }) => viewRig(id),
  reviseRig: async ({ actor, id, body, saw }) => reviseRig(actor, id, body, saw),
  duplicateRig: async ({ actor, id }) => made(duplicateRig(actor, id)),
  addSystem: async ({ actor, body }) => made(addSystem(actor, body)),
  viewSystem: async ({ id }) => viewSystem(id),
  changeSystem: async ({ actor, id, body, saw }) => changeSystem(actor, id, body, saw),
  listTitles: async ({ query }) => viewTitles(query),
  addTitle: async ({ actor, body }) => made(addTitle(actor, body)),
  addTitles: async ({ actor, body }) => addTitles(actor, body),
  likeTitles: async ({ body }) => likeTitles(body),
  changeTitles: async ({ actor, body }) => changeTitles(actor, body),
  viewTitle: async ({ id }) => viewTitle(id),
  changeTitle: async ({ actor, id, body, saw }) => changeTitle(actor, id, body, saw),
  addEngine: async ({ actor, body }) => made(addEngine(actor, body)),
  viewEngine: async ({ id }) => viewEngine(id),
  changeEngine: async ({ actor, id, body, saw }) => changeEngine(actor, id, body, saw),
  exportCatalogue: async ({ id }) => exportCatalogue(id),
  importCatalogue: async ({ actor, id, body, saw }) => importCatalogue(actor, id, body, saw),
  catalogueSchema: async () => jsonFile(catalogueJsonSchema()),
  addPreflight: async ({ actor, body }) => addPreflight(actor, body),
  removePreflight: async ({ actor, id }) => removePreflight(actor, id),
  addHouseRules: async ({ actor, body }) => made(addHouseRules(actor, body)),
  viewHouseRules: async ({ id }) => viewHouseRules(id),
  changeHouseRules: async ({ actor, id, body, saw }) => changeHouseRules(actor, id, body, saw),
  rejudge: async ({ actor, id, body }) => rejudge(actor, id, body),
};
