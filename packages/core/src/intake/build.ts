import {
  camelCase,
  pascalCase,
  plainAttribute,
  type Attribute,
  type AttributeType,
  type Entity,
  type Relationship,
  type ValueDefinition,
} from '../model/index.js';

/** An attribute of a block. */
export const newAttribute = (
  block: string,
  name: string,
  type: AttributeType,
  known: Partial<Attribute> = {},
): Attribute => plainAttribute(`${block}.${name}`, name, type, known);

export const newEntity = (
  name: string,
  attributes: readonly Attribute[],
  known: Partial<Pick<Entity, 'description' | 'uniques'>> = {},
): Entity => ({
  kind: 'entity',
  id: name,
  name,
  description: null,
  comments: [],
  attributes,
  uniques: [],
  implicitId: 'integer',
  ...known,
});

export const newValue = (
  name: string,
  attributes: readonly Attribute[],
  description: string | null = null,
): ValueDefinition => ({ kind: 'value', id: name, name, description, comments: [], attributes });

interface Joined {
  readonly from: string;
  readonly to: string;
  readonly role: string;
  readonly back: string | null;
  readonly description?: string | null;
}

const join = ({
  from,
  to,
  role,
  back,
  description = null,
}: Joined): Omit<Joined, 'description'> & {
  readonly id: string;
  readonly description: string | null;
  readonly comments: readonly string[];
  readonly onRemove: null;
} => ({ id: `${from}>${to}:${role}`, from, to, role, back, description, comments: [], onRemove: null });

export const ownsMany = (joined: Joined): Relationship => ({
  kind: 'owns',
  cardinality: 'many',
  ...join(joined),
});

export const refersTo = (joined: Joined, required: boolean): Relationship => ({
  kind: 'refers',
  cardinality: required ? 'one' : 'optional',
  fixed: false,
  unique: false,
  ...join(joined),
});

export const pairsWith = (joined: Joined): Relationship => ({
  kind: 'pairs',
  cardinality: 'many',
  carrying: null,
  ...join(joined),
});

/** A name for a block: PascalCase, beginning with a letter. */
export const blockName = (name: string, otherwise: string): string =>
  pascalCase(withoutFirstDigits(name)) || otherwise;

/** A name for an attribute or a role: camelCase, beginning with a letter. */
export const asMemberName = (name: string, otherwise: string): string =>
  camelCase(withoutFirstDigits(name)) || otherwise;

/** Names of the notation begin with a letter, and have letters and digits alone. */
const withoutFirstDigits = (name: string): string =>
  name.replace(/[^A-Za-z0-9]+/g, '_').replace(/^[0-9_]+/, '');

/** A name for a member beside others: `_name` is `ownName` where there is a `name`. */
export function memberBeside(isTaken: (name: string) => boolean, wanted: string): string {
  if (!isTaken(wanted)) return wanted;
  const own = camelCase(`own_${wanted}`);
  let name = own;
  for (let number = 2; isTaken(name); number++) name = `${own}${number}`;
  return name;
}

/** Gives out names, each once in its space: a number behind it where it is taken. */
export class Names {
  private readonly taken = new Map<string, Set<string>>();

  /** Whether the name was free in the space; it is taken from now on. */
  take(space: string, name: string): boolean {
    const names = this.taken.get(space) ?? new Set<string>();
    this.taken.set(space, names);
    if (names.has(name)) return false;
    names.add(name);
    return true;
  }

  has(space: string, name: string): boolean {
    return this.taken.get(space)?.has(name) === true;
  }

  free(space: string, wanted: string): string {
    if (this.take(space, wanted)) return wanted;
    for (let number = 2; ; number++) if (this.take(space, `${wanted}${number}`)) return `${wanted}${number}`;
  }
}

/** The type that only the name of a text says. */
export function typeByName(name: string): AttributeType | null {
  if (/^(e_?)?mail(_?address)?$/i.test(name)) return { kind: 'email' };
  if (/^(uri|url|website|homepage)$/i.test(name)) return { kind: 'uri' };
  return null;
}

/** A count with its noun: `1 value`, `12 values`. */
export const counted = (count: number, noun: string): string => `${count} ${noun}${count === 1 ? '' : 's'}`;
