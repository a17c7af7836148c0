import { describe, expect, test } from '@jest/globals';
import { MAX_TARGET_BYTES, readTarget } from '@isomeros/core/engine';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

interface Read {
  readonly segments: readonly string[];
  readonly path: string;
  readonly query?: string;
  readonly trailingSlash?: boolean;
}

const plain = { query: '', trailingSlash: false };

describe('a target (RFC 3986 §3.3, RFC 9112 §3.2.1)', () => {
  const read: readonly (readonly [string, Read])[] = [
    ['/', { segments: [], path: '/' }],
    ['/routes', { segments: ['routes'], path: '/routes' }],
    ['/routes/', { segments: ['routes'], path: '/routes', trailingSlash: true }],
    ['/routes/1?size=2&x', { segments: ['routes', '1'], path: '/routes/1', query: 'size=2&x' }],
    ['/routes/?size=2', { segments: ['routes'], path: '/routes', query: 'size=2', trailingSlash: true }],
    ['/?a=/b/../c', { segments: [], path: '/', query: 'a=/b/../c' }],
    ['/routes?', { segments: ['routes'], path: '/routes' }],
    ['/a//b', { segments: ['a', '', 'b'], path: '/a//b' }],
    ['//', { segments: [''], path: '/', trailingSlash: true }],
    ['/%6Eotes', { segments: ['notes'], path: '/notes' }],
    ['/a%2Fb/c', { segments: ['a/b', 'c'], path: '/a/b/c' }],
    ['/a%252Fb', { segments: ['a%2Fb'], path: '/a%2Fb' }],
    ['/%C3%A9', { segments: ['é'], path: '/é' }],
    ['/a/./b', { segments: ['a', 'b'], path: '/a/b' }],
    ['/a/../b', { segments: ['b'], path: '/b' }],
    ['/a/%2E%2e/b', { segments: ['b'], path: '/b' }],
    ['/../../b', { segments: ['b'], path: '/b' }],
    ['/a/.', { segments: ['a'], path: '/a' }],
    ['/.hidden', { segments: ['.hidden'], path: '/.hidden' }],
    ['/a.b/c..', { segments: ['a.b', 'c..'], path: '/a.b/c..' }],
    ['/a+b', { segments: ['a+b'], path: '/a+b' }],
  ];
  test.each(read)('%s is read', (text, expected) => {
    expect(readTarget(text)).toEqual({ ok: true, target: { ...plain, ...expected } });
  });

  test.each([
    ['routes', 400, 'begins with a slash'],
    ['*', 400, 'begins with a slash'],
    ['/%', 400, 'not percent-encoded UTF-8'],
    ['/%zz', 400, 'not percent-encoded UTF-8'],
    ['/%C3', 400, 'not percent-encoded UTF-8'],
    ['/%ED%A0%80', 400, 'not percent-encoded UTF-8'],
    [`/${'a'.repeat(MAX_TARGET_BYTES)}`, 414, `${MAX_TARGET_BYTES}`],
    [`/?${'é'.repeat(MAX_TARGET_BYTES / 2)}`, 414, `${MAX_TARGET_BYTES}`],
  ])('%.20s is refused with %d', (text, status, detail) => {
    const found = readTarget(text);
    expect(found).toMatchObject({ ok: false, problem: { status } });
    expect(!found.ok && found.problem.detail).toContain(detail);
  });

  test('of the longest kind is read', () => {
    expect(readTarget(`/${'a'.repeat(MAX_TARGET_BYTES - 1)}`).ok).toBe(true);
  });

  test('means the same however much of it is percent-encoded', () => {
    const segment = fc.string({ minLength: 1, maxLength: 8, unit: 'grapheme' });
    const everyByte = (text: string): string =>
      [...new TextEncoder().encode(text)].map((byte) => `%${byte.toString(16).padStart(2, '0')}`).join('');
    fc.assert(
      fc.property(fc.array(segment, { maxLength: 4 }), (texts) => {
        const segments = texts.filter((text) => text !== '.' && text !== '..');
        for (const encode of [encodeURIComponent, everyByte]) {
          const found = readTarget(`/${segments.map(encode).join('/')}`);
          expect(found.ok && found.target.segments).toEqual(segments);
        }
      }),
      rounds(100),
    );
  });
});
