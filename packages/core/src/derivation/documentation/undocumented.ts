import { isDocumented, type Contract } from '../../contract/index.js';
import { becauseSet, valueOf, type DerivationContext } from '../context.js';

/** Operations that are published without a word by anybody, where somebody wants to be told. */
export function findUndocumented(context: DerivationContext, { operations }: Contract): void {
  if (valueOf(context, 'undocumented') === 'fine') return;
  for (const { id, documentation } of operations) {
    if (isDocumented(documentation) || documentation?.isPublished === false) continue;
    context.findings.push({
      id: 'documentation.missing',
      severity: 'doubtful',
      message: `${id} is published, and nobody wrote what it is for.`,
      about: id,
      reasons: [becauseSet(context, 'finding.undocumented', ['undocumented'])],
      quickFixes: [],
    });
  }
}
