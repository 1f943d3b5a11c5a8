export { Connection } from "./Connection";
export { Live } from "./Live";
export { sendLater } from "./outbox";
export { useLive } from "./useLive";
export { forgetPages, useShell } from "./useShell";
