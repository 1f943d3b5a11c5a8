export { SettingField } from "./SettingField";
export { SoundDelay } from "./SoundDelay";
export { SyncSchool } from "./SyncSchool";
