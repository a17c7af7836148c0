/** What follows from an object alone: found when it is asked for first, and kept for as long as the object is. */
export function memoize<K extends object, V>(find: (from: K) => V): (from: K) => V {
  const known = new WeakMap<K, V>();
  return (from) => {
    const before = known.get(from);
    if (before !== undefined) return before;
    const found = find(from);
    known.set(from, found);
    return found;
  };
}
