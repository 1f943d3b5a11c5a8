/* A run is taken by whoever runs it: a browser by any text of its own, a device by one that says which it is. */

const sign = "device:";

/** What a device takes runs as. @param own a text that no other program uses */
export const deviceTaker = (rig: string, own: string): string => `${sign}${own}:${rig}`.slice(0, 80);

/** The rig whose device has taken a run; null where a person did. */
export function deviceOf(taker: string): string | null {
  const [own, ...rig] = taker.startsWith(sign) ? taker.slice(sign.length).split(":") : [];
  return own === undefined || rig.length === 0 ? null : rig.join(":");
}
