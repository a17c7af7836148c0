import type { SettingPlace, Settings } from '../../arrangement/index.js';
import type { Verb } from '../../contract/index.js';
import { valueOf, type DerivationContext } from '../context.js';
import type { ResolvedCustom } from '../customOperations/index.js';

/** What an operation answers when it succeeds: what it is about, nothing, or where that is (RFC 9110 §15.4.4). */
export type SuccessAnswer = Settings['actionAnswers'];

/** The settings by which operations answer, where the standards leave a choice. */
const ANSWERING = {
  create: 'createAnswers',
  replace: 'replaceAnswers',
  remove: 'removeAnswers',
  transition: 'actionAnswers',
  custom: 'actionAnswers',
} as const satisfies Partial<Record<Verb, keyof Settings>>;

/** They answer a body, whatever others do. */
const ANSWERING_ALWAYS: ReadonlySet<string | undefined> = new Set([
  'query',
  'find',
  'create',
  'verify',
  'many',
]);

const isChoosable = (verb: Verb): verb is keyof typeof ANSWERING => Object.hasOwn(ANSWERING, verb);

/** What was chosen, where it can be: nobody is sent to an address that cannot be read. */
export function answerOf(
  context: DerivationContext,
  at: SettingPlace & { readonly verb: Verb },
  own: ResolvedCustom | null,
  isAddressed: boolean,
): SuccessAnswer {
  const { verb } = at;
  if (own?.custom.kind === 'revoke') return 'nothing';
  if (!isChoosable(verb) || ANSWERING_ALWAYS.has(own?.custom.kind)) return 'record';
  const chosen: SuccessAnswer = valueOf(context, ANSWERING[verb], at);
  if (chosen !== 'see other' || isAddressed) return chosen;
  return verb === 'create' ? 'record' : 'nothing';
}
