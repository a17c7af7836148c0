/**
 * What follows from an object, and from what always goes with it: found when it is asked for first, and kept for as
 * long as the object is. It must have no effect but its result.
 */
export function memoize<K extends object, V, With extends readonly unknown[] = []>(
  find: (from: K, ...others: With) => V,
): (from: K, ...others: With) => V {
  const known = new WeakMap<K, V>();
  return (from, ...others) => {
    const before = known.get(from);
    if (before !== undefined) return before;
    const found = find(from, ...others);
    known.set(from, found);
    return found;
  };
}

/** The entry of a key; made and kept where there is none. */
export function entryOf<K, V>(known: Map<K, V>, key: K, make: () => V): V {
  const before = known.get(key);
  if (before !== undefined) return before;
  const made = make();
  known.set(key, made);
  return made;
}

/** What is worked out when it is asked for first, and kept. */
export function lazy<Result>(work: () => Result): () => Result {
  let found: { readonly result: Result } | null = null;
  return () => (found ??= { result: work() }).result;
}
