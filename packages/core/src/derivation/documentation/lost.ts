import { DOCUMENTED_KINDS, entryNamed, saidOfKind, type DocumentedKind } from '../../arrangement/index.js';
import { documentable, isOwnTag, type Contract, type Finding } from '../../contract/index.js';
import type { DerivationContext } from '../context.js';

/** What a kind of subject is called in a sentence. */
const CALLED: Readonly<Record<DocumentedKind, string>> = {
  api: 'an API',
  server: 'a server',
  tag: 'a tag',
  operation: 'an operation',
  member: 'a member',
  parameter: 'a parameter',
  header: 'a header',
  response: 'an answer',
  constraint: 'a constraint',
  problem: 'a problem',
};

/** What is said of what is not there any more is told of; it waits to be given to something else, or dropped. */
export function findLost(context: DerivationContext, contract: Contract): void {
  const { documentation } = context.arrangement;
  for (const kind of DOCUMENTED_KINDS) {
    const said = saidOfKind(documentation, kind);
    if (Object.keys(said).length === 0 || kind === 'api' || kind === 'server') continue;
    const known = kind === 'tag' ? tagNames(context, contract) : documentable(kind, contract, context.model);
    for (const [subject, texts] of Object.entries(said))
      if (!known.has(subject)) context.findings.push(lost(kind, subject, texts, free(said, known)));
  }
}

type Said = Readonly<Record<string, string>>;
type Subjects = ReadonlyMap<string, string>;

/** What nothing is said of yet. */
const free = (said: Readonly<Record<string, Said>>, known: Subjects): Subjects =>
  new Map([...known].filter(([subject]) => entryNamed(said, subject) === null));

/** Tags that operations have. One that lost them all to another of the same title is still there. */
const tagNames = ({ model }: DerivationContext, { documentation }: Contract): Subjects =>
  new Map([
    ...model.declarations.flatMap((one) => (one.kind === 'entity' ? [[one.id, one.name] as const] : [])),
    ['entry', 'Entry'] as const,
    ...documentation.tags.map(({ id, title }) => [id, title] as const),
  ]);

function lost(kind: DocumentedKind, subject: string, texts: Said, others: Subjects): Finding {
  const fields = Object.keys(texts);
  const source = { kind: 'documentation', of: kind, subject, fields, level: 'arrangement' } as const;
  const answer = { kind: 'documentation', of: kind, subject } as const;
  return {
    id: 'documentation.lost',
    severity: 'doubtful',
    message: `What is said of ${CALLED[kind]} has none any more: ${quoted(texts)}.`,
    about: subject,
    reasons: [{ rule: 'finding.lost-documentation', because: [source] }],
    cause: source,
    quickFixes: [
      ...nearestTo(kind, subject, others)
        .slice(0, MOST_OFFERED)
        .map(([to, name]) => ({ title: `Say it of ${name}`, answer: { ...answer, to } })),
      { title: 'Drop it', answer: { ...answer, to: null } },
    ],
  };
}

const MOST_OFFERED = 3;

/** What something may be said of instead: what shares the end of its identity, then what shares its beginning. */
function nearestTo(
  kind: DocumentedKind,
  subject: string,
  others: Subjects,
): readonly (readonly [string, string])[] {
  if (kind === 'tag' && isOwnTag(subject)) return [...others];
  const last = endOf(subject);
  const first = subject.split(/[\s:./]/)[0] ?? '';
  const alike = [...others].filter(([other]) => endOf(other) === last);
  const near = [...others].filter(([other]) => endOf(other) !== last && other.startsWith(first));
  return kind === 'operation' || kind === 'response' ? alike : [...alike, ...near];
}

const endOf = (subject: string): string => /[^\s:./]*$/.exec(subject)?.[0] ?? '';

const LONGEST_QUOTE = 60;

function quoted(texts: Said): string {
  const text = texts['summary'] ?? texts['description'] ?? texts['message'] ?? texts['title'];
  if (text === undefined) return Object.keys(texts).join(', ');
  return JSON.stringify(text.length > LONGEST_QUOTE ? `${text.slice(0, LONGEST_QUOTE - 1)}…` : text);
}
