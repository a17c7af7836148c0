import { REGISTERED_RELATIONS, type Contract, type Operation } from '../../contract/index.js';
import type { AttributeType, Entity, Model } from '../../model/index.js';
import { boundable, lineNames, linkableMembers, type LineNames } from './lineNames.js';

/** Of what may follow, at most so many are told. */
const MOST_OFFERED = 12;

/** What a line about a link can go on with: the whole line with each, those first that begin as the last word does. */
export function completeLinkLine(
  model: Model,
  contract: Contract,
  resource: string,
  text: string,
): readonly string[] {
  const names = lineNames(model, contract, resource);
  const { typed, offered } = inAddress(names, text) ?? inWords(names, text);
  const before = text.slice(0, text.length - typed.length);
  const fitting = offered.filter(
    (word) => word !== typed && word.toLowerCase().startsWith(typed.toLowerCase()),
  );
  return [...new Set(fitting)].slice(0, MOST_OFFERED).map((word) => before + word);
}

interface Offered {
  /** What is written of the last word. */
  readonly typed: string;
  readonly offered: readonly string[];
}

/** `{route.co`: a variable that is not closed; `null` where none is open. */
function inAddress(names: LineNames, text: string): Offered | null {
  const [, path] = /"[^"]*\{([^{}"]*)$/.exec(text) ?? [];
  if (path === undefined) return null;
  return names.from === null ? { typed: path, offered: [] } : along(names, names.from, path, 'members');
}

/** The last of some roles joined by dots. */
function along(names: LineNames, from: Entity, path: string, last: 'members' | 'roles'): Offered {
  const words = path.split('.');
  const typed = words.pop() ?? '';
  let entity: Entity | undefined = from;
  for (const word of words)
    entity = names.index.entities.get(names.roles(entity?.name ?? '').get(word)?.to ?? '');
  if (entity === undefined) return { typed, offered: [] };
  const roles = [...names.roles(entity.name)].flatMap(([role, { isMany }]) => (isMany ? [] : [role]));
  const members = linkableMembers(names.index, entity).map(({ name }) => name);
  return { typed, offered: last === 'roles' ? roles : [...members, ...roles.map((role) => `${role}.`)] };
}

const ARROW = /^\s*\S+\s*->\s*/;

function inWords(names: LineNames, text: string): Offered {
  const [arrow] = ARROW.exec(text) ?? [];
  if (arrow === undefined) {
    const [, typed = ''] = /^\s*(\S*)$/.exec(text) ?? [];
    if (typed === '' || /^\s*\S+\s/.test(text)) return { typed: '', offered: ['-> '] };
    return { typed, offered: REGISTERED_RELATIONS };
  }
  const rest = text.slice(arrow.length);
  const [first = ''] = /^[\w.-]*/.exec(rest) ?? [];
  if (first === rest) return target(names, rest);
  const operation = names.operation(first);
  const [typed = ''] = /[\w.-]*$/.exec(rest) ?? [];
  const words = rest
    .slice(0, rest.length - typed.length)
    .trimEnd()
    .split(/[\s,]+/);
  if (operation === undefined)
    return { typed, offered: names.from === null ? [] : afterTarget(names, words) };
  return inClause(names, operation, words, typed);
}

function target(names: LineNames, typed: string): Offered {
  if (typed.includes('.') && names.from !== null) return along(names, names.from, typed, 'roles');
  const roles = names.from === null ? [] : along(names, names.from, '', 'roles').offered;
  const operations = names.contract.operations.map(({ id }) => id);
  return { typed, offered: [...roles, ...operations, '"https://'] };
}

const afterTarget = (names: LineNames, words: readonly string[]): readonly string[] => {
  const last = words.at(-1) ?? '';
  if (last !== 'when' && last !== 'and') return ['when '];
  return names.from === null ? [] : linkableMembers(names.index, names.from).map(({ name }) => name);
};

const CLAUSES = ['with', 'where', 'sort', 'size', 'when'] as const;
const COMPARES: ReadonlySet<string> = new Set(['=', '!=', '<', '<=', '>', '>=']);

function inClause(names: LineNames, operation: Operation, words: readonly string[], typed: string): Offered {
  const at = words.findLastIndex((word) => CLAUSES.some((clause) => clause === word));
  const clause = words[at];
  const last = words.at(-1) ?? '';
  const entity = clause === 'when' ? (names.from ?? undefined) : names.entityOf(operation);
  if (COMPARES.has(last)) return value(names, entity, words.at(-2) ?? '', typed);
  const isNew = last === clause || last === 'and' || last === 'then';
  const members = entity === undefined ? [] : linkableMembers(names.index, entity).map(({ name }) => name);
  switch (clause) {
    case 'with':
      if (isNew) return { typed, offered: boundable(names, operation).map(({ name }) => name) };
      break;
    case 'where':
    case 'when':
      if (isNew) return { typed, offered: members };
      break;
    case 'sort':
      if (isNew) return { typed, offered: members };
      return { typed, offered: [...(last === 'desc' ? [] : ['desc']), 'then ', ...following(names)] };
    case 'size':
    case undefined:
      return { typed, offered: last === 'size' ? [] : following(names) };
  }
  const isValue = COMPARES.has(words.at(-2) ?? '');
  return { typed, offered: isValue ? ['and ', ...following(names)] : [...COMPARES].map((one) => `${one} `) };
}

const following = ({ from }: LineNames): readonly string[] =>
  CLAUSES.filter((clause) => clause !== 'when' || from !== null).map((clause) => `${clause} `);

/** What a member is compared with: its options, the moment, or what the record has. */
function value(names: LineNames, entity: Entity | undefined, member: string, typed: string): Offered {
  if (typed.startsWith('self.') && names.from !== null)
    return along(names, names.from, typed.slice('self.'.length), 'members');
  const type = entity?.attributes.find(({ name }) => name === member)?.type;
  const self = names.from === null ? [] : ['self.'];
  return { typed, offered: [...optionsOf(type), ...self] };
}

function optionsOf(type: AttributeType | undefined): readonly string[] {
  if (type === undefined) return [];
  if (type.kind === 'choice') return type.options;
  if (type.kind === 'boolean') return ['true', 'false'];
  return type.kind === 'instant' || type.kind === 'date' ? ['now'] : [];
}
