export { useShareLink } from "./useLink";
export { HandedOn, type HandedForm } from "./HandedOn";
export { OthersPanel } from "./OthersPanel";
export { PublishPage } from "./PublishPage";
