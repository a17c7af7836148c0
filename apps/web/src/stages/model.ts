import { amount } from '../app/parts/amount.js';
import type { Stage } from './stage.js';

export const MODEL: Stage = {
  path: 'model',
  name: 'Model',
  means: 'what there is, and what owns what',
  next: 'Next: entities, and a sentence about two of them, such as each Route owns many Sailing as sailings.',
  load: async () => (await import('../model/ModelPage.js')).ModelPage,
  // Counted in the text as it stands, with an error in it or not.
  figure: ({ derived: { reading } }) => {
    if (reading === null) return 'reading';
    const kinds = reading.model.declarations.map(({ kind }) => kind);
    const entities = kinds.filter((kind) => kind === 'entity').length;
    const relationships = kinds.filter((kind) => kind !== 'entity' && kind !== 'value').length;
    return `${amount(entities, 'entity')} · ${amount(relationships, 'relationship')}`;
  },
};
