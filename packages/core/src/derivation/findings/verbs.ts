import { words } from '../../model/index.js';
import { because, type DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';

/** What methods say; a path that begins a word with one says it again. */
const VERBS: ReadonlySet<string> = new Set([
  'get',
  'fetch',
  'find',
  'create',
  'add',
  'update',
  'edit',
  'delete',
  'remove',
]);

/** Most words are none of them, and need not be taken apart. */
const MAY_BE_VERB = new RegExp(`^(?:${[...VERBS].join('|')})`, 'i');

/** Reports paths whose word begins with a verb that methods already say. Actions may: they are what is done. */
export function findVerbs(context: DerivationContext, resources: readonly PlacedResource[]): void {
  for (const { id, kind, word, segments, path, reasons } of resources) {
    if (word === null || kind === 'action') continue;
    const text = segments.findLast((segment) => segment.kind === 'literal')?.text ?? '';
    if (!MAY_BE_VERB.test(text)) continue;
    const [first = '', ...others] = words(text);
    if (others.length === 0 || !VERBS.has(first)) continue;
    context.findings.push({
      id: 'name.verb',
      severity: 'doubtful',
      message: `${path} begins a word with ${first}; the method says that already.`,
      about: id,
      reasons: [
        {
          ...because('finding.verb'),
          because: reasons.flatMap((reason) => reason.because).slice(0, 1),
        },
      ],
    });
  }
}
