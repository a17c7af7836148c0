import { amount } from '../app/parts/amount.js';
import { mocksOf } from '../mock/mocks.js';
import type { Stage } from './stage.js';

export const MOCK: Stage = {
  path: 'mock',
  name: 'Mock',
  means: 'run it, with records that last',
  next: 'Next: start the mock, then call it with the line that it shows for a terminal.',
  load: async () => (await import('../mock/MockPage.js')).MockPage,
  figure: (state, design) => {
    const [mock] = mocksOf(state, design);
    if (mock === undefined) return 'not started';
    return `${mock.running ? `:${mock.port}` : 'stopped'} · ${amount(mock.exchanges, 'exchange')}`;
  },
};
