import type { Contract, CitedDecision, Reasons, Source } from '../contract/index.js';
import { memoize } from '../model/index.js';

/** What a decision is about, whatever was decided; `null` for what is no decision. */
function aboutOf(source: Source): string | null {
  switch (source.kind) {
    case 'setting':
      return `setting ${source.name}`;
    case 'placement':
    case 'word':
      return `${source.kind} ${source.subject}`;
    case 'exposure':
      return `exposure ${source.entity} ${source.of} ${source.aspect}`;
    case 'custom':
      return `custom ${source.id}`;
    case 'statement':
    case 'release':
      return null;
  }
}

const isDecision = (source: Source): source is CitedDecision => aboutOf(source) !== null;

/** How something was decided; all that nobody decided is decided alike. */
function howOf(source: CitedDecision): string {
  switch (source.kind) {
    case 'setting':
      return JSON.stringify(source.value);
    case 'placement':
      return source.place;
    case 'word':
      return source.word;
    case 'exposure':
    case 'custom':
      return source.level;
  }
}

/** What was decided wherever a contract says why something is there. */
const decidedIn = memoize((contract: Contract): ReadonlyMap<string, CitedDecision> => {
  const found = new Map<string, CitedDecision>();
  const read = (reasons: Reasons): void => {
    for (const { because } of reasons)
      for (const source of because) if (isDecision(source)) found.set(aboutOf(source) ?? '', source);
  };
  for (const { reasons, links } of contract.resources) {
    read(reasons);
    for (const link of links) read(link.reasons);
  }
  for (const { reasons, query, responses } of contract.operations) {
    read(reasons);
    for (const part of [...query, ...responses]) read(part.reasons);
  }
  for (const { reasons, members } of contract.shapes) {
    read(reasons);
    for (const member of members) read(member.reasons);
  }
  return found;
});

/**
 * The decision that a difference between two contracts comes from: the first cited one that was decided otherwise in
 * the earlier. `null` where the model itself changed.
 */
export function causeOf(reasons: Reasons, earlier: Contract, later: Contract): CitedDecision | null {
  const [then, now] = [decidedIn(earlier), decidedIn(later)];
  for (const { because } of reasons)
    for (const source of because) {
      if (!isDecision(source)) continue;
      const about = aboutOf(source) ?? '';
      const before = then.get(about);
      // What is gone cites how things were decided then.
      const after = before !== undefined && howOf(before) === howOf(source) ? now.get(about) : source;
      if (after === undefined || after.level === 'default') continue;
      if (before === undefined || howOf(before) !== howOf(after)) return after;
    }
  return onlyDecision(earlier, later);
}

/** What is known of each record, without what it is called. */
const membersOf = memoize((contract: Contract): string =>
  contract.shapes
    .flatMap(({ purpose, of, members }) =>
      members.map(({ source, type, required, nullable }) =>
        JSON.stringify([purpose, of, source, type, required, nullable]),
      ),
    )
    .sort()
    .join('\n'),
);

/** Where records are what they were and one thing alone was decided otherwise, everything else follows from it. */
function onlyDecision(earlier: Contract, later: Contract): CitedDecision | null {
  if (membersOf(earlier) !== membersOf(later)) return null;
  const then = decidedIn(earlier);
  const changed = [...decidedIn(later)].filter(([about, now]) => {
    const before = then.get(about);
    return now.level !== 'default' && (before === undefined || howOf(before) !== howOf(now));
  });
  return changed.length === 1 ? (changed[0]?.[1] ?? null) : null;
}
