/** A set with one more in it, or without that one where it was in it. */
export function toggled<T>(all: ReadonlySet<T>, one: T): Set<T> {
  const next = new Set(all);
  if (!next.delete(one)) next.add(one);
  return next;
}
