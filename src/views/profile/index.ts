export { ProfileScreen } from "./ProfileScreen";
export { ProfilesScreen } from "./ProfilesScreen";
export { RecipeScreen } from "./RecipeScreen";
