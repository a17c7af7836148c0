import { describe, expect, test } from '@jest/globals';
import { readCommonMark, type TextBlock, type TextSpan } from '@isomeros/core/publication';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

const isOperation = (id: string): boolean => id === 'listRoutes';
const read = (text: string): readonly TextBlock[] => readCommonMark(text, isOperation);

const paragraph = (...spans: readonly TextSpan[]): TextBlock => ({ kind: 'paragraph', spans });
const plain = (text: string): TextSpan => ({ kind: 'text', text });

describe('a text in CommonMark', () => {
  test.each<readonly [string, string, readonly TextBlock[]]>([
    [
      'emphasis and code',
      '*a* **b** `c`',
      [
        paragraph(
          { kind: 'emphasis', spans: [plain('a')] },
          plain(' '),
          { kind: 'strong', spans: [plain('b')] },
          plain(' '),
          { kind: 'code', text: 'c' },
        ),
      ],
    ],
    [
      'a list that begins at two',
      '2. a\n3. b',
      [{ kind: 'list', start: 2, items: [[paragraph(plain('a'))], [paragraph(plain('b'))]] }],
    ],
    [
      'a heading, a rule and a quote',
      '# a\n\n---\n\n> b',
      [
        { kind: 'heading', depth: 1, spans: [plain('a')] },
        { kind: 'rule' },
        { kind: 'quote', blocks: [paragraph(plain('b'))] },
      ],
    ],
    [
      'links, written out, named and by themselves',
      '[a](https://docs.example/a) [b] <mailto:desk@ferries.example>\n\n[b]: https://docs.example/b',
      [
        paragraph(
          { kind: 'link', url: 'https://docs.example/a', spans: [plain('a')] },
          plain(' '),
          { kind: 'link', url: 'https://docs.example/b', spans: [plain('b')] },
          plain(' '),
          { kind: 'link', url: 'mailto:desk@ferries.example', spans: [plain('mailto:desk@ferries.example')] },
        ),
      ],
    ],
    [
      'a link to an operation, and what only looks like one',
      'See [listRoutes], `[listRoutes]` and [listFerries].',
      [
        paragraph(
          plain('See '),
          { kind: 'operation', operation: 'listRoutes' },
          plain(', '),
          { kind: 'code', text: '[listRoutes]' },
          plain(' and [listFerries].'),
        ),
      ],
    ],
    [
      'an image, which becomes a link',
      '![a map](https://docs.example/map.png)',
      [paragraph({ kind: 'link', url: 'https://docs.example/map.png', spans: [plain('a map')] })],
    ],
  ])('%s', (_, text, expected) => {
    expect(read(text)).toEqual(expected);
  });
});

/** Everything a text shows, and every address it leads to. */
function contents(blocks: readonly TextBlock[]): { texts: string[]; urls: string[] } {
  const texts: string[] = [];
  const urls: string[] = [];
  const ofSpan = (span: TextSpan): void => {
    if (span.kind === 'text' || span.kind === 'code') texts.push(span.text);
    else if (span.kind === 'operation') texts.push(span.operation);
    else if (span.kind !== 'break') {
      if (span.kind === 'link') urls.push(span.url);
      span.spans.forEach(ofSpan);
    }
  };
  const ofBlock = (block: TextBlock): void => {
    switch (block.kind) {
      case 'paragraph':
      case 'heading':
        block.spans.forEach(ofSpan);
        return;
      case 'list':
        block.items.forEach((item) => item.forEach(ofBlock));
        return;
      case 'quote':
        block.blocks.forEach(ofBlock);
        return;
      case 'code':
        texts.push(block.text);
        return;
      case 'rule':
    }
  };
  blocks.forEach(ofBlock);
  return { texts, urls };
}

describe('hostile texts', () => {
  test.each([
    ['a script', '<script>alert(1)</script>', '<script>alert(1)</script>'],
    ['the end of one', 'x </script> y', '</script>'],
    ['a handler', '<img src=x onerror=alert(1)>', 'onerror=alert(1)'],
    ['a comment', '<!-- a -->', '<!-- a -->'],
    ['a link to a script', '[a](javascript:alert(1))', '[a](javascript:alert(1))'],
    ['the same, disguised', '[a](JaVaScRiPt:alert(1))', 'JaVaScRiPt:'],
    ['the same, encoded', '[a](&#106;avascript:alert(1))', 'avascript:'],
    ['data', '[a](data:text/html,<b>)', 'data:'],
    ['an image of a script', '![a](javascript:alert(1))', '![a](javascript:alert(1))'],
    ['a script by itself', '<javascript:alert(1)>', 'javascript:'],
    ['a named script', '[a][b]\n\n[b]: javascript:alert(1)', '[a][b]'],
  ])('%s is text', (_, text, shown) => {
    const { texts, urls } = contents(read(text));
    expect(texts.join('')).toContain(shown);
    expect(urls).toEqual([]);
  });

  test.each([
    ['emphasis marks', '*'.repeat(1_000_000)],
    ['quotes', '>'.repeat(20_000)],
    ['quotes with blanks', '> '.repeat(10_000)],
    ['lists', '- '.repeat(10_000)],
    ['brackets', '['.repeat(20_000)],
    ['links that never end', '[a]('.repeat(5_000)],
    ['emphasis in emphasis', '*a_b'.repeat(5_000)],
    ['backticks', Array.from({ length: 190 }, (_, count) => '`'.repeat(count + 1)).join(' ')],
  ])('so many %s come to an end, and nothing of them is lost', (_, text) => {
    const { texts, urls } = contents(read(text));
    expect(urls).toEqual([]);
    const counted = (shown: string): readonly number[] =>
      ['a', 'b', '[', '('].map((character) => shown.split(character).length);
    expect(counted(texts.join(''))).toEqual(counted(text));
  });

  test('whatever is written, nothing leads anywhere but to the web or to mail', () => {
    const piece = fc.constantFrom(
      '*',
      '_',
      '`',
      '[',
      ']',
      '(',
      ')',
      '<',
      '>',
      '!',
      '#',
      '-',
      '\n',
      '\n\n',
      ' ',
      'a',
      'javascript:x',
      'https://a.example',
      '\\',
      '&#x6a;',
      '&lt;',
      '\u2028',
      '\u202e',
      '[listRoutes]',
      '[a]: data:x\n',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 60 }), (pieces) => {
        for (const url of contents(read(pieces.join(''))).urls)
          expect(url).toMatch(/^(?:https?:\/\/|mailto:)/i);
      }),
      rounds(100),
    );
  });
});
