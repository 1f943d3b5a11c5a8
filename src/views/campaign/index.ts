export { CampaignScreen } from "./CampaignScreen";
export { CampaignsScreen } from "./CampaignsScreen";
export { PlanCampaignScreen } from "./PlanCampaignScreen";
