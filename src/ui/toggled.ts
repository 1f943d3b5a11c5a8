/** A set with one thing the other way: in it where it wasn't, out of it where it was. */
export function toggled<Thing>(set: ReadonlySet<Thing>, thing: Thing): ReadonlySet<Thing> {
  const next = new Set(set);
  if (!next.delete(thing)) next.add(thing);
  return next;
}
