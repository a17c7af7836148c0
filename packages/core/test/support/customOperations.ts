import {
  FIXED_OPERATORS,
  type AcceptedInput,
  type AggregateEffect,
  type AssignedMember,
  type CustomEffect,
  type CustomOperation,
  type FixedFilter,
  type FixedValue,
  type InputRules,
  type ManyEffect,
  type OwnComparison,
} from '@isomeros/core/arrangement';
import { AGGREGATES, COMPARE_OPERATORS, type Entity, type Model } from '@isomeros/core/model';
import fc from 'fast-check';

/** Inputs that are accepted besides, most of them such as fit. */
const anyRules = (member: fc.Arbitrary<string>): fc.Arbitrary<InputRules> =>
  fc
    .record(
      {
        type: fc.constantFrom('text', 'text(..5)', 'integer', 'uuid', 'choice(a, b)'),
        required: fc.boolean(),
        secret: fc.boolean(),
        equals: member,
      },
      { requiredKeys: ['type', 'required', 'secret'] },
    )
    .map((rules) => (rules.type === 'text' ? { ...rules, default: { kind: 'literal', value: 'a' } } : rules));

const anyAccepted = (
  member: fc.Arbitrary<string>,
): fc.Arbitrary<{ readonly accepts?: readonly AcceptedInput[] }> =>
  fc
    .option(
      fc
        .tuple(fc.constantFrom('why', 'again'), anyRules(member))
        .map(([name, rules]) => ({ name, ...rules })),
      { freq: 2 },
    )
    .map((one) => (one === null ? {} : { accepts: [one] }));

/** Records along some relationship, or those of the collection, taken together. */
const anyAggregate = (
  relationships: readonly string[],
  member: fc.Arbitrary<string>,
  filters: fc.Arbitrary<readonly FixedFilter[]>,
): fc.Arbitrary<AggregateEffect> =>
  fc
    .record({
      of: fc.constantFrom(...AGGREGATES),
      along: fc.array(
        fc.record({
          relationship: fc.constantFrom('nothing', ...relationships),
          direction: fc.constantFrom('onwards' as const, 'back' as const),
        }),
        { maxLength: 1 },
      ),
      member,
      filters,
    })
    .map(({ of, along, member: taken, filters: compared }) => ({
      kind: 'aggregate',
      of,
      along,
      member: of === 'count' ? null : taken,
      scale: of === 'average' ? 2 : null,
      filters: compared,
    }));

const anyAccept = ({ attributes }: Entity, member: fc.Arbitrary<string>): fc.Arbitrary<CustomEffect> => {
  const transitions = attributes.flatMap(({ lifeCycle }) => (lifeCycle ?? []).map(({ id }) => id));
  return fc
    .tuple(fc.constantFrom(null, null, ...transitions), anyRules(member))
    .map(([transition, rules]) => ({ kind: 'accept', transition, ...rules }));
};

/** Inputs against attributes, most of them with one that is unique. */
function anyVerify({ attributes }: Entity): fc.Arbitrary<CustomEffect> {
  const ids = attributes.map(({ id }) => id);
  const unique = attributes.filter((one) => one.unique || one.key !== null).map(({ id }) => id);
  const some = ids.length === 0 ? fc.constant('nothing') : fc.constantFrom(...ids);
  const first = unique.length === 0 ? some : fc.constantFrom(...unique);
  return fc.record({
    kind: fc.constant('verify' as const),
    compared: fc
      .tuple(first, fc.option(some))
      .map(([one, two]) => [
        { member: one, input: 'name' },
        ...(two === null ? [] : [{ member: two, input: 'secret' }]),
      ]),
    answers: fc.oneof(
      fc.constant({ kind: 'record' } as const),
      fc.record({
        kind: fc.constant('token' as const),
        seconds: fc.integer({ min: 1, max: 100_000 }),
        role: fc.oneof(
          fc.constant(null),
          fc.constant({ kind: 'fixed', role: 'admin' } as const),
          some.map((attribute) => ({ kind: 'attribute', attribute }) as const),
        ),
      }),
    ),
    failure: fc.constantFrom('unauthenticated' as const, 'missing' as const),
  });
}

/** The same for many records, most of it such as the model allows. */
function anyMany(
  { attributes }: Entity,
  filters: fc.Arbitrary<readonly FixedFilter[]>,
  when: fc.Arbitrary<readonly OwnComparison[]>,
  values: fc.Arbitrary<readonly AssignedMember[]>,
): fc.Arbitrary<ManyEffect> {
  const transitions = attributes.flatMap(({ lifeCycle }) => (lifeCycle ?? []).map(({ id }) => id));
  const assign = fc.record({ kind: fc.constant('assign' as const), when, values });
  const move = fc.constantFrom('nothing', ...transitions).map((transition) => ({
    kind: 'transition' as const,
    transition,
  }));
  return fc.record({
    kind: fc.constant('many' as const),
    over: fc.oneof(
      fc.constant({ kind: 'ids' } as const),
      fc.record({ kind: fc.constant('condition' as const), filters }),
    ),
    does: fc.oneof(assign, ...(transitions.length === 0 ? [] : [move])),
  });
}

const anyFixedValue: fc.Arbitrary<FixedValue> = fc.oneof(
  { depthSize: 'small', maxDepth: 2 },
  fc.constantFrom<FixedValue>({ kind: 'now' }, { kind: 'version' }),
  fc
    .constantFrom(0, 1.5, 'up', 'now', '', true, null)
    .map((value): FixedValue => ({ kind: 'literal', value })),
  fc
    .array(
      fc.constantFrom(1, 'a').map((value): FixedValue => ({ kind: 'literal', value })),
      { maxLength: 2 },
    )
    .map((items): FixedValue => ({ kind: 'list', items })),
);

/** Any answer that is the same for everybody, some of them such as cannot be given. */
export const anyFixedBody: fc.Arbitrary<FixedValue> = fc.oneof(
  anyFixedValue,
  fc
    .uniqueArray(
      fc.record({ name: fc.constantFrom('status', '__proto__', 'a b', 'at'), value: anyFixedValue }),
      {
        selector: ({ name }) => name,
        maxLength: 3,
      },
    )
    .map((members): FixedValue => ({ kind: 'object', members })),
);

const anyFixed: fc.Arbitrary<CustomOperation> = fc.record({
  id: fc.constantFrom('c1', 'f1'),
  name: fc.constantFrom('health', 'newest'),
  entity: fc.constant(null),
  effect: anyFixedBody.map((body) => ({ kind: 'fixed' as const, body })),
});

/** Operations of one's own about anything, most of them such as no model allows. */
export const anyCustomOperations = (model: Model): fc.Arbitrary<readonly CustomOperation[]> => {
  const entities = model.declarations.filter((one): one is Entity => one.kind === 'entity');
  if (entities.length === 0) return fc.constant([]);
  const relationships = model.declarations.filter(({ kind }) => kind === 'owns' || kind === 'refers');
  return fc
    .array(
      fc.constantFrom(...entities).chain((entity) => {
        const ids = [...entity.attributes, ...relationships].map(({ id }) => id);
        const member = ids.length === 0 ? fc.constant('nothing') : fc.constantFrom(...ids);
        const operand = fc.oneof(
          fc.constant({ kind: 'now' } as const),
          fc.constantFrom(1, 'a', true, '2026-01-01').map((value) => ({ kind: 'literal', value }) as const),
        );
        const when = fc.array(
          fc.record({ member, operator: fc.constantFrom(...COMPARE_OPERATORS), value: operand }),
          { maxLength: 1 },
        );
        const values = fc.array(
          fc.record({
            member,
            value: fc.oneof(
              operand,
              fc.constant({ kind: 'input' } as const),
              fc.constant({ kind: 'unset' } as const),
              operand.map((value) => ({
                kind: 'chosen' as const,
                input: 'side',
                options: [
                  { option: 'one', value },
                  { option: 'none', value: { kind: 'unset' as const } },
                ],
              })),
            ),
          }),
          { maxLength: 2 },
        );
        const input = fc.record(
          {
            kind: fc.constant('input' as const),
            name: fc.constantFrom('since', 'fields', 'q'),
            default: operand,
          },
          { requiredKeys: ['kind', 'name'] },
        );
        const filters = fc.array(
          fc.record({
            member,
            operator: fc.constantFrom(...FIXED_OPERATORS),
            value: fc.oneof(operand, input),
          }),
          { maxLength: 2 },
        );
        const order = fc.array(fc.record({ member, descending: fc.boolean() }), { maxLength: 1 });
        const accepting = <T extends CustomEffect>(one: fc.Arbitrary<T>): fc.Arbitrary<T> =>
          fc.tuple(one, anyAccepted(member)).map(([drawn, accepted]) => ({ ...drawn, ...accepted }));
        const effect: fc.Arbitrary<CustomEffect> = fc.oneof(
          fc.record({
            kind: fc.constant('query' as const),
            filters,
            order,
            limit: fc.integer({ min: 1, max: 5 }),
          }),
          fc.record({ kind: fc.constant('find' as const), filters, order }),
          accepting(fc.record({ kind: fc.constant('assign' as const), when, values })),
          accepting(anyVerify(entity)),
          accepting(anyMany(entity, filters, when, values)),
          anyAccept(entity, member),
          anyAggregate(
            relationships.map(({ id }) => id),
            member,
            filters,
          ),
          fc.constantFrom({ kind: 'revoke' } as const, { kind: 'caller' } as const),
          fc.record({
            kind: fc.constant('create' as const),
            when,
            values,
            relationship:
              relationships.length === 0
                ? fc.constant('nothing')
                : fc.constantFrom(...relationships.map(({ id }) => id)),
          }),
        );
        return fc.record({
          id: fc.constantFrom('c1', 'c2', 'c3', 'c4'),
          name: fc.constantFrom('newest', 'close', 'items', 'next'),
          entity: fc.constant(entity.id),
          effect,
        });
      }),
      { maxLength: 3 },
    )
    .chain((drawn) => fc.option(anyFixed, { freq: 2 }).map((one) => (one === null ? drawn : [one, ...drawn])))
    .map((drawn) => drawn.filter(({ id }, index) => drawn.findIndex((one) => one.id === id) === index));
};
