import { amount } from '../app/parts/amount.js';
import type { Stage } from './stage.js';

export const ARRANGE: Stage = {
  path: 'arrange',
  name: 'Arrange',
  means: 'how it is laid out as resources',
  next: 'Next: choose the basics on the left, such as the version or the case; every path follows at once.',
  load: async () => (await import('../arrange/ArrangePage.js')).ArrangePage,
  figure: ({ derived: { review }, document: { choices } }) =>
    review === null
      ? 'deriving'
      : `${amount(choices.arrangements.length, 'arrangement')} · ${amount(review.figures.assumptions, 'assumption')}`,
};
