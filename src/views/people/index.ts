export { PeopleScreen } from "./PeopleScreen";
export { SignInScreen } from "./SignInScreen";
export { WorkshopScreen } from "./WorkshopScreen";
