import { amount } from '../app/parts/amount.js';
import type { Stage } from './stage.js';

export const CONTRACT: Stage = {
  path: 'contract',
  name: 'Contract',
  means: 'what follows, each part with why',
  next: 'Next: choose a cell to read an operation: what goes in, what comes out, and why.',
  load: async () => (await import('../contract/ContractPage.js')).ContractPage,
  figure: ({ derived: { review } }) => {
    if (review === null) return 'deriving';
    const { figures, breaking } = review;
    const findings = amount(figures.findings.error + figures.findings.doubtful, 'finding');
    return `${amount(figures.operations, 'operation')} · ${breaking > 0 ? `${breaking} breaking` : findings}`;
  },
};
