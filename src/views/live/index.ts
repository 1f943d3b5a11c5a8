export { Live } from "./Live";
export { useLive } from "./useLive";
