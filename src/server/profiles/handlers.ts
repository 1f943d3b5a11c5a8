import { profileJsonSchema } from "@/core/profile";
import { recipeJsonSchema } from "@/core/recipe";
import { jsonFile } from "@/server/request/jsonFile";
import type { profilesEndpoints } from "@/contract/profiles";
import type { Handlers } from "@/server/request/request";
import { carryProfile, liftValue, planCheck, setProfileValues, undoProfileValue } from "./changeProfile";
import { saveProfile, takeProfile } from "./profileFile";
import { viewProfileRecipe, viewRecipe } from "./recipe";
import { listProfiles, viewProfile } from "./viewProfile";

export const profilesHandlers: Handlers<Exclude<keyof typeof profilesEndpoints, "events">> = {
  listProfiles: async () => listProfiles(),
  viewProfile: async ({ query }) => viewProfile(query),
  setProfileValues: async ({ actor, body }) => setProfileValues(actor, body),
  undoProfileValue: async ({ actor, body }) => undoProfileValue(actor, body),
  liftValue: async ({ actor, body }) => liftValue(actor, body),
  carryProfile: async ({ actor, body }) => carryProfile(actor, body),
  planCheck: async ({ actor, body }) => planCheck(actor, body),
  viewRecipe: async ({ id }) => viewRecipe(id),
  viewProfileRecipe: async ({ query }) => viewProfileRecipe(query),
  recipeSchema: async () => jsonFile(recipeJsonSchema()),
  saveProfile: async ({ query }) => saveProfile(query),
  profileSchema: async () => jsonFile(profileJsonSchema()),
  takeProfile: async ({ actor, body }) => takeProfile(actor, body),
};
