import type { Reason, RuleId } from '../../contract/index.js';

/** A reason that cites an operation of one's own, after any statements. */
export const becauseCustom = (
  rule: RuleId,
  { id, name }: { readonly id: string; readonly name: string },
  ...statements: readonly { readonly id: string }[]
): Reason => ({
  rule,
  because: [
    ...statements.map((statement) => ({ kind: 'statement', id: statement.id }) as const),
    { kind: 'custom', id, name, level: 'arrangement' },
  ],
});
