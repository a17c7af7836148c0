import type { AttributeType, Declaration, Owns, RefersTo, ScalarType } from '@isomeros/core/model';
import fc from 'fast-check';

export const isScalar = (type: AttributeType): type is ScalarType =>
  type.kind !== 'json' && type.kind !== 'value' && type.kind !== 'list';

export interface Drawn {
  readonly pairs: {
    readonly to: number;
    readonly carrying: boolean;
    readonly back: boolean;
    readonly restrict: boolean;
  } | null;
  readonly owner: number | null;
  readonly cardinality: Owns['cardinality'];
  readonly targets: readonly {
    readonly to: number;
    readonly optional: boolean;
    readonly back: boolean;
    readonly onRemove: number;
    readonly unique: boolean;
  }[];
  /** Whether the first attribute and the first reference are unique together. */
  readonly uniqueTogether: boolean;
}

export const drawn: fc.Arbitrary<Drawn> = fc.record({
  pairs: fc.option(
    fc.record({ to: fc.nat(6), carrying: fc.boolean(), back: fc.boolean(), restrict: fc.boolean() }),
  ),
  owner: fc.option(fc.nat(6)),
  cardinality: fc.constantFrom<Owns['cardinality']>('many', 'many', 'many', 'one', 'optional'),
  targets: fc.array(
    fc.record({
      to: fc.nat(6),
      optional: fc.boolean(),
      back: fc.boolean(),
      onRemove: fc.nat(3),
      unique: fc.nat(3).map((draw) => draw === 0),
    }),
    { maxLength: 2 },
  ),
  uniqueTogether: fc.nat(3).map((draw) => draw === 0),
});

/** Some entities get a rule over an attribute and a reference. */
export function withUniqueRules(
  blocks: readonly Declaration[],
  found: readonly Declaration[],
  lines: readonly Drawn[],
): Declaration[] {
  let index = 0;
  const ruled = blocks.map((block): Declaration => {
    if (block.kind !== 'entity') return block;
    const isWanted = lines[index++]?.uniqueTogether === true;
    const attribute = block.attributes.find(({ type }) => isScalar(type))?.name;
    const role = found.find((one) => one.kind === 'refers' && one.from === block.name);
    const name = role?.kind === 'refers' ? role.role : null;
    if (!isWanted || attribute === undefined || name === null) return block;
    const names = [attribute, name];
    const id = `${block.name}(${names.join()})`;
    return { ...block, uniques: [{ kind: 'unique', id, names, description: null, comments: [] }] };
  });
  return [...ruled, ...found];
}

export function relationships(
  entities: readonly string[],
  lines: readonly Drawn[],
  values: readonly string[],
): Declaration[] {
  const singletons = new Set<number>();
  const found: Declaration[] = [];
  const bare = { description: null, comments: [] };
  lines.forEach(({ owner, cardinality }, index) => {
    if (owner === null || index === 0) return;
    const above = owner % index;
    if (cardinality !== 'many') singletons.add(index);
    const [from = '', to = ''] = [entities[above], entities[index]];
    const role = `owned${index}`;
    found.push({
      kind: 'owns',
      id: `${from}>${to}:${role}`,
      from,
      to,
      role,
      back: `owner${index}`,
      onRemove: null,
      cardinality,
      ...bare,
    });
  });
  lines.forEach(({ targets }, index) => {
    targets.forEach(({ to, optional, back, onRemove, unique }, number) => {
      const target = to % entities.length;
      if (singletons.has(target)) return;
      const [from = '', name = ''] = [entities[index], entities[target]];
      const role = `ref${index}x${number}`;
      const required = !optional && target < index;
      const rules = required
        ? (['restrict', 'cascade', null] as const)
        : (['detach', 'restrict', 'cascade', null] as const);
      const refers: RefersTo = {
        kind: 'refers',
        id: `${from}>${name}:${role}`,
        from,
        to: name,
        role,
        back: back ? `back${index}x${number}` : null,
        onRemove: rules[onRemove % rules.length] ?? null,
        cardinality: required ? 'one' : 'optional',
        fixed: false,
        unique,
        ...bare,
      };
      found.push(refers);
    });
  });
  lines.forEach(({ pairs }, index) => {
    const target = (pairs?.to ?? 0) % entities.length;
    if (pairs === null || singletons.has(target) || singletons.has(index)) return;
    const [from = '', to = ''] = [entities[index], entities[target]];
    const role = `paired${index}s`;
    found.push({
      kind: 'pairs',
      id: `${from}>${to}:${role}`,
      from,
      to,
      role,
      back: pairs.back ? `pairing${index}s` : null,
      onRemove: pairs.restrict ? 'restrict' : null,
      cardinality: 'many',
      carrying: pairs.carrying ? (values[0] ?? null) : null,
      ...bare,
    });
  });
  return found;
}
