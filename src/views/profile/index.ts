export { ProfilePage } from "./ProfilePage";
export { ProfilesPage } from "./ProfilesPage";
export { RecipePage } from "./RecipePage";
