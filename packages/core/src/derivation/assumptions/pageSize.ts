import { setting } from '../../arrangement/index.js';
import type { Assumption } from '../../contract/index.js';
import { becauseSet, valueOf, type DerivationContext } from '../context.js';

const SIZES = [20, 50, 100];

/** Lists are answered in pages of a size nobody chose. */
export function assumePageSize(context: DerivationContext): readonly Assumption[] {
  if (context.index.entities.size === 0) return [];
  const assumed = valueOf(context, 'pageSize');
  const most = valueOf(context, 'maxPageSize');
  const sizes = [...new Set([...SIZES, assumed])].filter((size) => size <= most).sort((a, b) => a - b);
  return [
    {
      id: 'page.size',
      question: 'How many records come in one page when nobody says?',
      ground: `No setting says so. Never more than ${most}.`,
      options: sizes.map((size) => ({
        label: String(size),
        assumed: size === assumed,
        answer: { kind: 'setting', name: 'pageSize', value: size },
      })),
      settled: setting(context.arrangement, 'pageSize').level !== 'default',
      reasons: [becauseSet(context, 'list.page', ['pageSize', 'maxPageSize'])],
    },
  ];
}
