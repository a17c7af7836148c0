import { setting } from '../../arrangement/index.js';
import type { Assumption } from '../../contract/index.js';
import { isSingleton, keyOf, phrase, withArticle } from '../../model/index.js';
import { becauseSet, valueOf, type DerivationContext } from '../context.js';

/** Entities without a key have an id of one kind, which nobody chose. */
export function assumeIds(context: DerivationContext): readonly Assumption[] {
  const entities = [...context.index.entities.values()].filter(
    (entity) => keyOf(entity).implicit && !isSingleton(context.index, entity.name),
  );
  const [first] = entities;
  if (first === undefined) return [];
  const kind = valueOf(context, 'implicitId');
  const others = entities.length === 1 ? '' : ` and ${entities.length - 1} more`;
  return [
    {
      id: 'id.kind',
      question: `What is the id of ${withArticle(phrase(first.name))}${others}?`,
      ground: `${entities.length === 1 ? 'It declares' : 'They declare'} no key.`,
      options: [
        {
          label: 'counted integer',
          assumed: kind === 'integer',
          answer: { kind: 'setting', name: 'implicitId', value: 'integer' },
        },
        {
          label: 'random uuid',
          assumed: kind === 'uuid',
          answer: { kind: 'setting', name: 'implicitId', value: 'uuid' },
        },
      ],
      settled: setting(context.arrangement, 'implicitId').level !== 'default',
      reasons: [becauseSet(context, 'member.implicit-id', ['implicitId'], ...entities)],
    },
  ];
}
