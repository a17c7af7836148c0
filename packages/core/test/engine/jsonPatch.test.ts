import { describe, expect, test } from '@jest/globals';
import { applyPatch, readPatch } from '@isomeros/core/engine';
import type { Json } from '@isomeros/core/model';
import fc from 'fast-check';
import { TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';

function patched(document: Json, patch: Json): Json | string {
  const read = readPatch(patch);
  if (!read.ok) return `malformed at ${read.pointer}`;
  const result = applyPatch(document, read.steps);
  return result.ok ? (JSON.parse(JSON.stringify(result.value)) as Json) : `step ${result.step}`;
}

describe('RFC 6902', () => {
  test.each<readonly [name: string, document: Json, patch: Json, expected: Json]>([
    [
      'A.1 adds a member',
      { foo: 'bar' },
      [{ op: 'add', path: '/baz', value: 'qux' }],
      { baz: 'qux', foo: 'bar' },
    ],
    [
      'A.2 adds an element',
      { foo: ['bar', 'baz'] },
      [{ op: 'add', path: '/foo/1', value: 'qux' }],
      { foo: ['bar', 'qux', 'baz'] },
    ],
    ['A.3 removes a member', { baz: 'qux', foo: 'bar' }, [{ op: 'remove', path: '/baz' }], { foo: 'bar' }],
    [
      'A.4 removes an element',
      { foo: ['bar', 'qux', 'baz'] },
      [{ op: 'remove', path: '/foo/1' }],
      { foo: ['bar', 'baz'] },
    ],
    [
      'A.5 replaces',
      { baz: 'qux', foo: 'bar' },
      [{ op: 'replace', path: '/baz', value: 'boo' }],
      { baz: 'boo', foo: 'bar' },
    ],
    [
      'A.6 moves a value',
      { foo: { bar: 'baz', waldo: 'fred' }, qux: { corge: 'grault' } },
      [{ op: 'move', from: '/foo/waldo', path: '/qux/thud' }],
      { foo: { bar: 'baz' }, qux: { corge: 'grault', thud: 'fred' } },
    ],
    [
      'A.7 moves an element',
      { foo: ['all', 'grass', 'cows', 'eat'] },
      [{ op: 'move', from: '/foo/1', path: '/foo/3' }],
      { foo: ['all', 'cows', 'eat', 'grass'] },
    ],
    [
      'A.8 tests',
      { baz: 'qux', foo: ['a', 2, 'c'] },
      [
        { op: 'test', path: '/baz', value: 'qux' },
        { op: 'test', path: '/foo/1', value: 2 },
      ],
      { baz: 'qux', foo: ['a', 2, 'c'] },
    ],
    ['A.9 a test that fails', { baz: 'qux' }, [{ op: 'test', path: '/baz', value: 'bar' }], 'step 0'],
    [
      'A.10 adds an object',
      { foo: 'bar' },
      [{ op: 'add', path: '/child', value: { grandchild: {} } }],
      { foo: 'bar', child: { grandchild: {} } },
    ],
    [
      'A.11 ignores what it does not know',
      { foo: 'bar' },
      [{ op: 'add', path: '/baz', value: 'qux', xyz: 123 }],
      { foo: 'bar', baz: 'qux' },
    ],
    ['A.12 adds nowhere', { foo: 'bar' }, [{ op: 'add', path: '/baz/bat', value: 'qux' }], 'step 0'],
    [
      'A.14 unescapes ~',
      { '/': 9, '~1': 10 },
      [{ op: 'test', path: '/~01', value: 10 }],
      { '/': 9, '~1': 10 },
    ],
    [
      'A.15 tells numbers from texts',
      { '/': 9, '~1': 10 },
      [{ op: 'test', path: '/~01', value: '10' }],
      'step 0',
    ],
    [
      'A.16 adds an array value',
      { foo: ['bar'] },
      [{ op: 'add', path: '/foo/-', value: ['abc', 'def'] }],
      { foo: ['bar', ['abc', 'def']] },
    ],
    ['copies', { a: [1] }, [{ op: 'copy', from: '/a', path: '/b' }], { a: [1], b: [1] }],
    ['refuses a move into itself', { a: { b: 1 } }, [{ op: 'move', from: '/a', path: '/a/b' }], 'step 0'],
    ['refuses a leading zero', { a: [1, 2] }, [{ op: 'remove', path: '/a/01' }], 'step 0'],
    ['refuses to remove what is not there', { a: 1 }, [{ op: 'remove', path: '/b' }], 'step 0'],
    ['refuses an index beyond the end', { a: [1] }, [{ op: 'add', path: '/a/2', value: 1 }], 'step 0'],
    ['reads __proto__ as a name', {}, [{ op: 'remove', path: '/__proto__' }], 'step 0'],
    ['needs an array', {}, { op: 'add' }, 'malformed at '],
    ['needs a known op', {}, [{ op: 'spam', path: '/a' }], 'malformed at /0'],
    ['needs a value', {}, [{ op: 'add', path: '/a' }], 'malformed at /0'],
    ['needs a pointer', {}, [{ op: 'remove', path: 'a' }], 'malformed at /0'],
    ['needs a good escape', {}, [{ op: 'remove', path: '/~2' }], 'malformed at /0'],
    ['needs from', {}, [{ op: 'move', path: '/a' }], 'malformed at /0'],
  ])('%s', (_name, document, patch, expected) => {
    expect(patched(document, patch)).toEqual(expected);
  });

  test('whatever is sent, the document stays as it was', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.array(fc.jsonValue()), (document, steps) => {
        const before = JSON.stringify(document);
        patched(document as Json, steps as Json);
        expect(JSON.stringify(document)).toBe(before);
      }),
      rounds(100),
    );
  });
});

const TEXT = `value Spot
  x: integer, required
  y: integer

entity Buoy
  name: text(1..20), required
  marks: list(0..3) of text(1..5)
  spot: Spot
  pin: text(1..8), write-only
  number: integer, generated
`;

const ONE = '/api/v1/buoys/1';

function patch(body: unknown): { readonly mock: TestMock; readonly answer: Answer } {
  const mock = new TestMock(modelOf(TEXT), { Buoy: 0 });
  const made = { name: 'One', marks: ['a', 'b'], spot: { x: 1, y: 2 }, pin: 'old' };
  expect(mock.send('POST', '/api/v1/buoys', made).status).toBe(201);
  return { mock, answer: mock.send('PATCH', ONE, body, { 'content-type': 'application/json-patch+json' }) };
}

const pinOf = (mock: TestMock): unknown =>
  Object.values(mock.rows[0]?.values ?? {}).find((value) => value === 'old' || value === 'new');

describe('JSON Patch of a record', () => {
  test('works on the members as they are shown', () => {
    const { answer, mock } = patch([
      { op: 'test', path: '/number', value: 1 },
      { op: 'replace', path: '/name', value: 'Two' },
      { op: 'add', path: '/marks/-', value: 'c' },
      { op: 'remove', path: '/spot/y' },
    ]);
    expect([answer.status, answer.body]).toMatchObject([
      200,
      { name: 'Two', marks: ['a', 'b', 'c'], spot: { x: 1, y: null } },
    ]);
    expect(pinOf(mock)).toBe('old');
  });

  test.each<readonly [name: string, body: unknown, status: number, code: string]>([
    [
      'a test that fails',
      [
        { op: 'replace', path: '/name', value: 'Two' },
        { op: 'test', path: '/name', value: 'One' },
      ],
      409,
      'patch',
    ],
    ['a path that is not there', [{ op: 'replace', path: '/spot/z', value: 1 }], 409, 'patch'],
    ['no patch at all', { name: 'Two' }, 400, 'malformed'],
    ['what does not fit afterwards', [{ op: 'replace', path: '/name', value: '' }], 400, 'invalid'],
    ['what is required, removed', [{ op: 'remove', path: '/name' }], 400, 'invalid'],
    ['what nobody knows', [{ op: 'add', path: '/colour', value: 'red' }], 400, 'invalid'],
    ['what the server makes, changed', [{ op: 'replace', path: '/number', value: 7 }], 400, 'invalid'],
    ['what the server makes, removed', [{ op: 'remove', path: '/number' }], 400, 'invalid'],
    ['the key, changed', [{ op: 'replace', path: '/id', value: 7 }], 409, 'conflict'],
    ['a look at a secret by test', [{ op: 'test', path: '/pin', value: 'old' }], 400, 'malformed'],
    ['a look at a secret by copy', [{ op: 'copy', from: '/pin', path: '/name' }], 400, 'malformed'],
    ['a look at a secret by move', [{ op: 'move', from: '/pin', path: '/name' }], 400, 'malformed'],
    ['links', [{ op: 'remove', path: '/links' }], 409, 'patch'],
  ])('refuses %s', (_name, body, status, code) => {
    const { answer } = patch(body);
    expect([answer.status, answer.body]).toMatchObject([status, { type: `/api/v1/-/problems/${code}` }]);
    expect(answer.handled.changes).toEqual([]);
  });

  test.each<readonly [name: string, op: object, expected: unknown]>([
    ['replaced', { op: 'replace', path: '/pin', value: 'new' }, 'new'],
    ['added', { op: 'add', path: '/pin', value: 'new' }, 'new'],
    ['removed', { op: 'remove', path: '/pin' }, undefined],
  ])('a secret can be %s', (_name, op, expected) => {
    const { answer, mock } = patch([op]);
    expect(answer.status).toBe(200);
    expect(pinOf(mock)).toBe(expected);
  });
});
