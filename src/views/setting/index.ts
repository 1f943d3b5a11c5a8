export { SettingField } from "./SettingField";
export { SoundDelay } from "./SoundDelay";
