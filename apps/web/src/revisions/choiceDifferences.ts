import {
  decidedSettings,
  findArrangement,
  PART_NAMES,
  partNamed,
  plainArrangement,
  type ArrangementChoices,
  type Choices,
  type Decided,
} from '@isomeros/core/arrangement';

/** A decision that two states of a design differ in. */
export interface ChoiceDifference {
  /** What was decided, in words. */
  readonly what: string;
  /** The arrangement it was decided for; `null` for the whole design. */
  readonly of: string | null;
  readonly was: string;
  readonly is: string;
}

export function choiceDifferences(
  before: Choices | null,
  after: Choices | null,
): readonly ChoiceDifference[] {
  if (before === null || after === null) return [];
  const names = [...before.arrangements, ...after.arrangements].map(({ name }) => name);
  const [old, now] = [new Set(before.answered), new Set(after.answered)];
  const agreed = after.answered.filter((id) => !old.has(id));
  const reopened = before.answered.filter((id) => !now.has(id));
  return [
    ...differences(null, decidedSettings(before.settings), decidedSettings(after.settings)),
    ...[...new Set(names)].flatMap((name) => arrangementDifferences(name, before, after)),
    ...agreed.map((id) => ({ what: id, of: null, was: 'open', is: 'agreed' })),
    ...reopened.map((id) => ({ what: id, of: null, was: 'agreed', is: 'open' })),
  ];
}

function arrangementDifferences(name: string, before: Choices, after: Choices): readonly ChoiceDifference[] {
  const [was, is] = [findArrangement(before, name), findArrangement(after, name)];
  const bare = plainArrangement(name);
  const made =
    (was === undefined) === (is === undefined)
      ? []
      : [
          {
            what: 'Arrangement',
            of: name,
            was: was === undefined ? 'not there' : 'there',
            is: is === undefined ? 'not there' : 'there',
          },
        ];
  return [...made, ...differences(name, everythingIn(was ?? bare), everythingIn(is ?? bare))];
}

/** Everything decided about one arrangement, by what it is. */
const everythingIn = (own: ArrangementChoices): readonly Decided[] =>
  PART_NAMES.flatMap((part) => partNamed(part).decided(own[part]));

function differences(
  of: string | null,
  before: readonly Decided[],
  after: readonly Decided[],
): readonly ChoiceDifference[] {
  const [was, is] = [new Map(before), new Map(after)];
  const names = [...new Set([...was.keys(), ...is.keys()])].filter((name) => was.get(name) !== is.get(name));
  return names.map((name) => ({
    what: name,
    of,
    was: was.get(name) ?? 'not set',
    is: is.get(name) ?? 'not set',
  }));
}
