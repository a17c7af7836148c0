import {
  literalProblem,
  plainAttribute,
  roleOf,
  type Attribute,
  type AttributeType,
  type Condition,
  type Declaration,
  type Entity,
  type Expression,
  type Json,
  type Model,
  type ScalarType,
  type Transition,
} from '@isomeros/core/model';
import fc from 'fast-check';
import { drawn, isScalar, relationships, withUniqueRules } from './drawnRelationships.js';

export { modelOf } from './modelOf.js';

const ENTITY_NAMES = [
  'Harbour',
  'Route',
  'CrewMember',
  'Box',
  'Category',
  'constructor'.replace('c', 'C'),
  'Toy',
  'Sheep',
];
const VALUE_NAMES = ['Position', 'Duty'];
const ATTRIBUTE_NAMES = [
  'name',
  'size',
  'departsAt',
  'password',
  'createdAt',
  'uuid',
  'constructor',
  'weight',
  'kind',
  'toString',
  'openedOn',
  'tags',
];

const word = fc.stringMatching(/^[a-z][a-z0-9]{0,7}$/);
const line = fc.string({ maxLength: 20 }).map((text) => text.replace(/[\r\n\u2028\u2029]/g, ' ').trim());
const comments = fc.array(line, { maxLength: 2 });
const description = fc.option(fc.string({ maxLength: 20 }).map((text) => text.replace(/[\r\n]/g, ' ')));
const bound = fc.option(fc.integer({ min: 0, max: 40 }));

const range = fc
  .tuple(bound, bound)
  .map(([a, b]) => (a !== null && b !== null && a > b ? { min: b, max: a } : { min: a, max: b }));

const scalarType: fc.Arbitrary<ScalarType> = fc.oneof(
  range.map((limits): ScalarType => ({ kind: 'text', pattern: null, ...limits })),
  fc.constant<ScalarType>({ kind: 'text', pattern: '[a-z]{2,4}', min: null, max: null }),
  range.map((limits): ScalarType => ({ kind: 'integer', ...limits })),
  fc
    .tuple(range, fc.option(fc.integer({ min: 0, max: 5 })), fc.boolean(), fc.boolean())
    .map(([limits, scale, isAbove, isBelow]): ScalarType => {
      // With a scale the next value says the same, as what is read from tables does.
      const isWide =
        scale === null && (limits.min === null || limits.max === null || limits.max > limits.min);
      return {
        kind: 'decimal',
        scale,
        ...limits,
        ...(isAbove && isWide && limits.min !== null ? { exclusiveMin: true } : {}),
        ...(isBelow && isWide && limits.max !== null ? { exclusiveMax: true } : {}),
      };
    }),
  fc.constantFrom<ScalarType>(
    { kind: 'boolean' },
    { kind: 'date' },
    { kind: 'time' },
    { kind: 'instant' },
    { kind: 'duration' },
    { kind: 'uuid' },
    { kind: 'email' },
    { kind: 'uri' },
  ),
  fc
    .uniqueArray(fc.oneof(word, fc.constant('two words'), fc.constant('true')), {
      minLength: 1,
      maxLength: 4,
    })
    .map((options): ScalarType => ({ kind: 'choice', options })),
);

function attributeType(values: readonly string[]): fc.Arbitrary<AttributeType> {
  const single: fc.Arbitrary<AttributeType>[] = [scalarType, fc.constant<AttributeType>({ kind: 'json' })];
  if (values.length > 0)
    single.push(fc.constantFrom(...values).map((name): AttributeType => ({ kind: 'value', name })));
  const one = fc.oneof(...single);
  const few = fc.tuple(fc.option(fc.integer({ min: 0, max: 2 })), fc.option(fc.integer({ min: 2, max: 5 })));
  const list = fc
    .tuple(one, few)
    .map(([of, [min, max]]): AttributeType => ({ kind: 'list', of: withoutPattern(of), min, max }));
  return fc.oneof({ weight: 5, arbitrary: one }, { weight: 1, arbitrary: list });
}

/** A pattern is a flag of the attribute, so entries of a list have none. */
const withoutPattern = (type: AttributeType): AttributeType =>
  type.kind === 'text' ? { ...type, pattern: null } : type;

/** What may stand behind `default` and `example`, for whatever type it fits. */
const literals: fc.Arbitrary<readonly Json[]> = fc.array(
  fc.oneof(
    fc.constantFrom<Json>(true, 3, 'plain', 'with "quotes" # and signs'),
    fc.constantFrom<Json>([], ['a', 'b "c"'], [true], [1, 2], {}, { 'a-b': [1, { c: null }] }),
  ),
  { maxLength: 6 },
);

const firstFitting = (type: AttributeType, candidates: readonly Json[]): Json =>
  candidates.find((candidate) => literalProblem(type, candidate) === null) ?? null;

/** Attributes whose flags agree with each other and with their type. */
function attribute(
  owner: string,
  name: string,
  values: readonly string[],
  inValue: boolean,
): fc.Arbitrary<Attribute> {
  const flags = fc.record({
    required: fc.boolean(),
    unique: fc.boolean(),
    fixed: fc.boolean(),
    visibility: fc.constantFrom('both', 'read-only', 'write-only'),
  });
  return fc
    .tuple(attributeType(values), flags, description, comments, literals, literals)
    .map(([type, chosen, text, above, usual, shown]): Attribute => {
      const readOnly = chosen.visibility === 'read-only' && !chosen.required;
      // Few values can be told apart: uniqueness there makes seeding impossible rather than the test stronger.
      const many =
        type.kind === 'uuid' ||
        type.kind === 'uri' ||
        (type.kind === 'text' && type.pattern === null && (type.max ?? 40) > 12);
      return {
        kind: 'attribute',
        id: `${owner}.${name}`,
        name,
        type,
        description: text,
        comments: above,
        required: chosen.required,
        unique: !inValue && chosen.unique && isScalar(type) && many,
        uniqueWithin: null,
        key: null,
        generated: false,
        touched: false,
        fixed: chosen.fixed && !inValue,
        readOnly: readOnly && !inValue,
        writeOnly: chosen.visibility === 'write-only' && !inValue,
        defaultValue: firstFitting(type, usual),
        example: firstFitting(type, shown),
        lifeCycle: null,
        computed: null,
      };
    });
}

/** Some choices of entities get a life cycle, with an initial state and perhaps a condition. */
const withLifeCycle = (attribute: Attribute, draw: number): Attribute => {
  const { type } = attribute;
  if (type.kind !== 'choice' || attribute.writeOnly || draw % 2 === 0) return attribute;
  const [first = ''] = type.options;
  const last = type.options.at(-1) ?? first;
  const transition = (
    name: string,
    from: readonly string[],
    to: string,
    when: Condition | null,
  ): Transition => ({
    kind: 'transition',
    id: `${attribute.id}/${name}`,
    name,
    from,
    to,
    when,
    description: draw % 3 === 0 ? 'said in words' : null,
    comments: draw % 5 === 0 ? ['about it'] : [],
  });
  const same: Condition = [
    [{ attribute: attribute.name, operator: '=', operand: { kind: 'literal', value: first } }],
  ];
  return {
    ...attribute,
    unique: false,
    defaultValue: first,
    lifeCycle: [
      transition('advance', [first], last, draw % 7 === 0 ? same : null),
      transition('goBack', type.options, first, null),
    ],
  };
};

const entityAttributes = (owner: string, values: readonly string[]): fc.Arbitrary<Attribute[]> =>
  fc.tuple(attributes(owner, values), fc.nat(50)).map(([list, draw]) => {
    const chosen = list.findIndex(({ type }) => type.kind === 'choice');
    return list.map((one, index) => (index === chosen ? withLifeCycle(one, draw) : one));
  });

const attributes = (owner: string, values: readonly string[], inValue = false): fc.Arbitrary<Attribute[]> =>
  fc
    .uniqueArray(fc.constantFrom(...ATTRIBUTE_NAMES), { maxLength: 5 })
    .chain((names) => fc.tuple(...names.map((name) => attribute(owner, name, values, inValue))))
    .map((list) => [...list]);

/** The first uuid of an entity is its key, made by the server; what fills a slot has none. */
function withKeys(declarations: readonly Declaration[]): readonly Declaration[] {
  const inSlots = new Set(
    declarations.flatMap((one) => (one.kind === 'owns' && one.cardinality !== 'many' ? [one.to] : [])),
  );
  return declarations.map((declaration): Declaration => {
    if (declaration.kind !== 'entity' || inSlots.has(declaration.name)) return declaration;
    const { attributes: all } = declaration;
    const first = all.find(({ type, computed }) => type.kind === 'uuid' && computed === null);
    const keyOf = ({ id, name, type, description, comments }: Attribute): Attribute =>
      plainAttribute(id, name, type, {
        description,
        comments,
        key: { generated: true, within: null },
        generated: true,
      });
    return { ...declaration, attributes: all.map((one) => (one === first ? keyOf(one) : one)) };
  });
}

/** Every other entity computes something: how many it has of others, and something of its own. */
function withComputed(declarations: readonly Declaration[]): readonly Declaration[] {
  return declarations.map((declaration): Declaration => {
    if (declaration.kind !== 'entity' || declaration.attributes.length % 2 === 1) return declaration;
    const many = declarations.find(
      (one) =>
        (one.kind === 'owns' || one.kind === 'pairs') &&
        one.from === declaration.name &&
        one.cardinality === 'many',
    );
    const role = many === undefined || many.kind === 'entity' || many.kind === 'value' ? null : roleOf(many);
    const own = declaration.attributes.find(({ type, writeOnly }) => isScalar(type) && !writeOnly);
    const made = (name: string, type: AttributeType, computed: Expression): Attribute =>
      plainAttribute(`${declaration.id}.${name}`, name, type, { computed });
    const counted: readonly Attribute[] =
      role === null
        ? []
        : [
            made(
              'tally',
              { kind: 'integer', min: null, max: null },
              {
                kind: 'operation',
                operator: '*',
                left: {
                  kind: 'operation',
                  operator: '+',
                  left: { kind: 'aggregate', of: 'count', roles: [role], attribute: null, where: [] },
                  right: { kind: 'literal', value: 1 },
                },
                right: { kind: 'literal', value: 2 },
              },
            ),
          ];
    const said: readonly Attribute[] =
      own === undefined
        ? []
        : [
            made(
              'caption',
              { kind: 'text', pattern: null, min: null, max: null },
              {
                kind: 'operation',
                operator: '&',
                left: { kind: 'literal', value: 'it is "' },
                right: { kind: 'attribute', name: own.name },
              },
            ),
          ];
    return { ...declaration, attributes: [...declaration.attributes, ...counted, ...said] };
  });
}

/** Sound models of up to six entities: owners and required references come before what needs them. */
export const anyModel: fc.Arbitrary<Model> = fc
  .record({
    values: fc.subarray(VALUE_NAMES),
    entities: fc.uniqueArray(fc.constantFrom(...ENTITY_NAMES), { minLength: 1, maxLength: 6 }),
  })
  .chain(({ values, entities }) =>
    fc
      .record({
        valueParts: fc.tuple(...values.map((name) => attributes(name, [], true))),
        parts: fc.tuple(
          ...entities.map((name) => fc.tuple(entityAttributes(name, values), description, comments)),
        ),
        drawn: fc.tuple(...entities.map(() => drawn)),
        name: fc.constantFrom('Drawn at random', '', 'with "quotes"'),
      })
      .map(({ valueParts, parts, drawn: lines, name }): Model => {
        const blocks: Declaration[] = [
          ...values.map((value, index): Declaration => ({
            kind: 'value',
            id: value,
            name: value,
            description: null,
            comments: [],
            attributes: valueParts[index] ?? [],
          })),
          ...entities.map((entity, index): Entity => {
            const [list, text, above] = parts[index] ?? [[], null, []];
            return {
              kind: 'entity',
              id: entity,
              name: entity,
              description: text,
              comments: above,
              attributes: list,
              uniques: [],
              implicitId: 'integer',
            };
          }),
        ];
        return {
          name,
          description: null,
          comments: [],
          declarations: withComputed(
            withKeys(withUniqueRules(blocks, relationships(entities, lines, values), lines)),
          ),
          trailingComments: [],
        };
      }),
  );
