/* Lists of choices that pages show as well: without schemas, so that a page carries none. */

export const jobBeginnings = ["profile", "defaults"] as const;
/** Which jobs a list shows, and in which order. */
export const jobStates = ["open", "closed", "left out"] as const;
export const jobOrders = ["worked", "title", "rig", "opened"] as const;
