export { PeoplePage } from "./PeoplePage";
export { SignInPage } from "./SignInPage";
export { WorkshopPage } from "./WorkshopPage";
