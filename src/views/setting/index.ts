export { SettingField } from "./SettingField";
