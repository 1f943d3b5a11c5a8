export { CampaignPage } from "./CampaignPage";
export { CampaignsPage } from "./CampaignsPage";
export { PlanCampaignPage } from "./PlanCampaignPage";
