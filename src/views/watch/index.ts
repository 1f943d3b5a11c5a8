export { LivePage } from "./LivePage";
export { RigDevices } from "./RigDevices";
