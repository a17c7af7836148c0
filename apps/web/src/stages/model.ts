import { amount, type Stage } from './stage.js';

export const MODEL: Stage = {
  path: 'model',
  name: 'Model',
  means: 'what there is, and what owns what',
  load: async () => (await import('../model/ModelPage.js')).ModelPage,
  figure: ({ design: { figures } }) =>
    figures === null
      ? 'reading'
      : `${amount(figures.entities, 'entity', 'entities')} · ${amount(figures.relationships, 'relationship')}`,
};
