/** When an item belongs on the list; data, so that tuners can add their own. */
export const preflightWhens = [
  "always",
  "has battery",
  "on battery",
  "has cooler",
  "hard title",
  "title has patches",
  "cold trial",
  "warm trial",
  "over a cable",
] as const;

export type PreflightWhen = (typeof preflightWhens)[number];
