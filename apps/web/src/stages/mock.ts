import { amount } from '../app/parts/amount.js';
import type { Stage } from './stage.js';

export const MOCK: Stage = {
  path: 'mock',
  name: 'Mock',
  means: 'run it, with records that last',
  next: 'Next: start the mock, then call it: the line below is ready for a terminal.',
  load: async () => (await import('../mock/MockPage.js')).MockPage,
  figure: ({ mocks }, design) => {
    const mock = Object.values(mocks.byId).find((candidate) => candidate.design === design);
    if (mock === undefined) return 'not started';
    return `${mock.running ? `:${mock.port}` : 'stopped'} · ${amount(mock.exchanges, 'exchange')}`;
  },
};
