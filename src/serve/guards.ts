/** Headers that every answer carries: it is what it says it is, and no part of somebody else's page. */
export const guards = {
  "x-content-type-options": "nosniff",
  "x-frame-options": "DENY",
  "referrer-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
} as const;

/** Beside them, for an answer that is no page: nothing in it may run or load. */
export const inertGuards = {
  ...guards,
  "cache-control": "no-store",
  "content-security-policy": "default-src 'none'; frame-ancestors 'none'",
} as const;

/** Bytes of a body that some clients send to every endpoint that changes something; it isn't looked at. */
export const strayBytes = 1024;
