/**
 * The first of a list that its schema keeps from being empty.
 * @throws RangeError for an empty one: a broken invariant
 */
export function first<Thing>(list: readonly Thing[]): Thing {
  const [thing] = list;
  if (thing === undefined) throw new RangeError("a list that is never empty is empty");
  return thing;
}
