import type { campaignsEndpoints } from "@/contract/campaigns";
import { growCampaign } from "./growCampaign";
import { made } from "@/server/request/made";
import type { Handlers } from "@/server/request/request";
import { campaignCalendar } from "./campaignCalendar";
import {
  addCampaign,
  answerRun,
  changeCampaign,
  giveTime,
  listCampaigns,
  orderCampaign,
  planTitles,
  viewCampaignKit,
  reckonCampaign,
  viewCampaign,
} from "./campaigns";
import { releaseRun, takeRun } from "./takeRun";

export const campaignsHandlers: Handlers<Exclude<keyof typeof campaignsEndpoints, "events">> = {
  listCampaigns: async () => listCampaigns(),
  addCampaign: async ({ actor, body }) => made(addCampaign(actor, body)),
  viewCampaignKit: async () => viewCampaignKit(),
  planTitles: async ({ query }) => planTitles(query),
  viewCampaign: async ({ id }) => viewCampaign(id),
  growCampaign: async ({ actor, id, body, saw }) => growCampaign(actor, id, body, saw),
  changeCampaign: async ({ actor, id, body, saw }) => changeCampaign(actor, id, body, saw),
  orderCampaign: async ({ actor, id, body, saw }) => orderCampaign(actor, id, body, saw),
  takeRun: async ({ actor, id, body }) => takeRun(actor, id, body),
  releaseRun: async ({ actor, id, body }) => releaseRun(actor, id, body),
  answerRun: async ({ actor, id, body }) => answerRun(actor, id, body),
  giveTime: async ({ actor, id, body }) => giveTime(actor, id, body),
  reckonCampaign: async ({ id, body }) => reckonCampaign(id, body),
  campaignCalendar: async ({ id, query }) => campaignCalendar(id, query),
};
