import { expect, test } from '@jest/globals';
import { migrate, type Decision } from '@isomeros/core/migration';
import { bareObject, type Row } from '@isomeros/core/model';
import { modelOf } from '../support/models.js';

const TOOLS = { now: 0, uuid: (): string => '' };

test('what is taken twice and is no text or number is not numbered', () => {
  const [old, now] = [modelOf('entity It\n  value: json\n'), modelOf('entity It\n  value: text, unique\n')];
  const rows = [1, 2].map((rid): Row => {
    const values = { 'It#id': rid, 'It.value': Object.assign(bareObject(), { a: 1 }) };
    return { rid, entity: 'It', values, revision: 1 };
  });
  const decisions = new Map<string, Decision>([['taken It.value It', { do: 'convert' }]]);
  const { open } = migrate(old, now, rows, { rid: 2, attributes: {} }, decisions, TOOLS);
  expect(open.map(({ id }) => id)).toContain('taken It.value It');
});
