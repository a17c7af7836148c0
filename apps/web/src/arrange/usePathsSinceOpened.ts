import type { Outline } from '@isomeros/core/contract';
import { useMemo, useState } from 'react';

interface SinceOpened {
  readonly isNew: (path: string) => boolean;
  /** What came and went, in words; `null` where nothing did. */
  readonly told: string | null;
}

interface Seen {
  readonly root: string;
  readonly paths: ReadonlySet<string>;
}

/** What came and went since the page was opened. */
export function usePathsSinceOpened(outline: Outline | null): SinceOpened {
  const [first, setFirst] = useState<Seen | null>(null);
  const now = useMemo(() => (outline === null ? null : seen(outline)), [outline]);
  if (first === null && now !== null) setFirst(now);
  return {
    isNew: (path) => first !== null && !first.paths.has(path),
    told: first === null || now === null ? null : changeInWords(first, now),
  };
}

const seen = ({ root, resources }: Outline): Seen => ({
  root,
  paths: new Set(resources.map(({ path }) => path)),
});

/** What is different between two path trees, in a few words; `null` where they are the same. */
export function changeInWords(before: Seen, now: Seen): string | null {
  const missing = (from: Seen, others: Seen): number =>
    [...from.paths].filter((path) => !others.paths.has(path)).length;
  const [added, removed] = [missing(now, before), missing(before, now)];
  const parts = [
    ...(before.root === now.root ? [] : [`under ${now.root} now`]),
    ...(added + removed === 0 ? [] : [`${added} added, ${removed} removed`]),
  ];
  return parts.length === 0 ? null : parts.join('; ');
}
