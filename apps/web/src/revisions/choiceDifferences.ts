import {
  findArrangement,
  plainArrangement,
  SETTINGS,
  type ArrangementChoices,
  type Choices,
  type SettingName,
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
    ...differences(null, settingsIn(before.settings, ''), settingsIn(after.settings, '')),
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

type Decided = ReadonlyMap<string, string>;

const said = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value));

const titleOf = (name: string): string =>
  Object.hasOwn(SETTINGS, name) ? SETTINGS[name as SettingName].title : name;

const settingsIn = (values: object, where: string): Decided =>
  new Map(Object.entries(values).map(([name, value]) => [titleOf(name) + where, said(value)]));

/** Everything decided about one arrangement, by what it is. */
function everythingIn({
  settings,
  resources,
  operations,
  placements,
  words,
  exposures,
}: ArrangementChoices): Decided {
  const near = [...Object.entries(resources), ...Object.entries(operations)];
  return new Map([
    ...settingsIn(settings, ''),
    ...near.flatMap(([id, values]) => [...settingsIn(values, ` of ${id}`)]),
    ...Object.values(exposures).flatMap((members) =>
      Object.entries(members).map(([member, choice]) => [`In and out of ${member}`, said(choice)] as const),
    ),
    ...Object.entries(words).map(([subject, word]) => [`Path word of ${subject}`, word] as const),
    ...Object.entries(placements).map(([subject, place]) => [`Place of ${subject}`, place] as const),
  ]);
}

function differences(of: string | null, was: Decided, is: Decided): readonly ChoiceDifference[] {
  const names = [...new Set([...was.keys(), ...is.keys()])].filter((name) => was.get(name) !== is.get(name));
  return names.map((name) => ({
    what: name,
    of,
    was: was.get(name) ?? 'not set',
    is: is.get(name) ?? 'not set',
  }));
}
