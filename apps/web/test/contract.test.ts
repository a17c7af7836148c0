import { CompletionContext } from '@codemirror/autocomplete';
import { EditorState } from '@codemirror/state';
import { describe, expect, test } from '@jest/globals';
import { parse } from '@isomeros/core/notation';
import fc from 'fast-check';
import { findCommands, type Command } from '../src/app/frame/commands.js';
import { designCommands } from '../src/app/frame/designCommands.js';
import { indentJson } from '../src/app/parts/json.js';
import { treeRows } from '../src/app/parts/treeRows.js';
import { envelopeText, inOutRows } from '@isomeros/core/contract';
import { impactOf, statementAt } from '../src/design/derivation/impact.js';
import { completeMessage } from '../src/mock/messageCompletion.js';
import { firstMessage, predictMatch, readingMessage } from '../src/mock/messageText.js';
import { kestrel, kestrelText, operationOf } from './support/kestrel.js';
import { rounds } from '../../../packages/core/test/support/rounds.js';

describe('what goes in and comes out', () => {
  test('of a create: what must, may and cannot be sent', () => {
    const rows = inOutRows(kestrel, operationOf('createBooking'));
    const told = rows.map(({ name, place, in: how, out }) => `${place} ${name} ${how}${out ? ' out' : ''}`);
    expect(told).toContain('path {sailingId} must');
    expect(told).toContain('body contact must out');
    expect(told).toContain('body note may out');
    expect(told).toContain('body state no out');
    expect(told).toContain('body price no out');
  });

  test('of a list: pages, sort and filters in the query', () => {
    const rows = inOutRows(kestrel, operationOf('listSailings')).filter(({ place }) => place === 'query');
    expect(rows.map(({ name }) => name)).toEqual(
      expect.arrayContaining(['page', 'size', 'sort', 'status', 'vesselPennant']),
    );
    expect(rows.every(({ in: how, reasons }) => how === 'may' && reasons.length > 0)).toBe(true);
  });
});

describe('where one record stands', () => {
  const told = (of: 'answers' | 'bodies', links: 'inside' | 'beside', id: string): string | null => {
    const record = { member: 'data', of, links, constants: [{ name: 'ok', value: true }] };
    const representation = { ...kestrel.representation, record };
    return envelopeText({ ...kestrel, representation }, operationOf(id));
  };

  test.each([
    ['answers', 'inside', 'readSailing', 'in JSON answered in data, beside it ok: true'],
    ['answers', 'beside', 'createBooking', 'in JSON answered in data, beside it links, ok: true'],
    ['bodies', 'inside', 'createBooking', 'in JSON sent and answered in data, beside it ok: true'],
    ['bodies', 'inside', 'listSailings', null],
  ] as const)('of %s, links %s: %s', (of, links, id, expected) => {
    expect(told(of, links, id)).toBe(expected);
  });

  test('is not told where it is the body', () => {
    expect(envelopeText(kestrel, operationOf('readSailing'))).toBeNull();
  });
});

describe('the tree and the outline', () => {
  test('every resource is a row, below what it hangs from', () => {
    const rows = treeRows(kestrel);
    expect(rows).toHaveLength(kestrel.resources.length);
    const item = rows.find(({ resource }) => resource.path.endsWith('/sailings/{sailingId}'));
    expect(item).toMatchObject({ level: 4, tail: '/{sailingId}' });
    expect(rows.flatMap(({ operations }) => operations)).toHaveLength(kestrel.operations.length);
  });

  test('a statement implies its paths and its members', () => {
    const { model, places } = parse(kestrelText);
    const line =
      kestrelText.split('\n').findIndex((text) => text.startsWith('each Route owns many Sailing')) + 1;
    const id = statementAt(Object.fromEntries(places), line) ?? '';
    const { paths, members } = impactOf(kestrel, model, id);
    expect(paths).toContain('/api/v1/routes/{routeNumber}/sailings');
    expect(members).toContain('Sailing.routeNumber');
    expect(statementAt({}, 1)).toBeNull();
  });
});

describe('the command line', () => {
  const all: Command[] = [];
  const go = (to: string): number => all.length + to.length;
  const commands = designCommands(
    { outline: kestrel, derived: null } as unknown as Parameters<typeof designCommands>[0],
    'x',
    [['Model', '/designs/x/model']],
    go,
  );

  test.each([
    ['removeVessel', 'removeVessel'],
    ['vess entity', 'Vessel'],
    ['file', 'Download the design as one file'],
    ['/harbours', '/api/v1/harbours'],
  ])('%s leads to %s', (typed, label) => {
    expect(findCommands(commands, typed, 5).map((command) => command.label)).toContain(label);
  });

  test('what nothing is called finds nothing, and nothing typed finds the first', () => {
    expect(findCommands(commands, 'no such xylophone', 5)).toEqual([]);
    expect(findCommands(commands, ' ', 3)).toEqual(commands.slice(0, 3));
  });
});

describe('a message while it is written', () => {
  const offered = (text: string): readonly string[] => {
    const state = EditorState.create({ doc: text });
    const result = completeMessage(kestrel, new CompletionContext(state, text.length, true));
    return result?.options.map(({ label }) => label) ?? [];
  };

  test('a filter is offered with each of its operators, and written percent-encoded', () => {
    const text = 'GET /api/v1/harbours?';
    const state = EditorState.create({ doc: text });
    const options = completeMessage(kestrel, new CompletionContext(state, text.length, true))?.options ?? [];
    expect(options).toContainEqual({
      label: 'name[contains]',
      apply: 'name%5Bcontains%5D=',
      detail: 'filter',
    });
    for (const { apply } of options) expect(apply).toMatch(/^[\w%]+=$/);
  });

  test.each([
    ['P', 'PATCH'],
    ['GET /api', '/api/v1/harbours'],
    ['GET /api/v1/harbours?', 'sort'],
    ['GET / HTTP/1.1\nAcc', 'Accept'],
    ['GET / HTTP/1.1\nAccept: ', 'application/json'],
    ['POST /api/v1/harbours HTTP/1.1\nContent-Type: application/json\n\n{ "', 'code'],
  ])('%j offers %s', (text, label) => {
    expect(offered(text)).toContain(label);
  });

  test('only what the method can do is offered', () => {
    expect(offered('POST /api')).not.toContain('/api/v1/harbours/{harbourCode}');
    expect(offered('GET / HTTP/1.1\n\nplain')).toEqual([]);
  });

  test('what would handle it is foreseen', () => {
    expect(predictMatch(kestrel, firstMessage(kestrel))).toMatchObject({ operation: { id: 'listHarbours' } });
    expect(predictMatch(kestrel, 'GET /api/v1/nowhere HTTP/1.1')).toMatchObject({ kind: 'none' });
    expect(predictMatch(kestrel, 'not a request')).toMatchObject({ kind: 'none' });
  });

  test.each([
    ['/api/v1/harbours', 'anonymous', null],
    ['/api/v1/harbours', 'authenticated', 'X-Ferry-Key: user-secret'],
    ['/api/v1/nowhere', 'authenticated', null],
  ] as const)('a message for %s where %s may read carries %s', (target, kind, header) => {
    const security = { schemes: ['key'], keyHeader: 'X-Ferry-Key', roles: [] } as const;
    const operations = kestrel.operations.map((operation) => ({ ...operation, access: { kind } }));
    const lines = readingMessage({ ...kestrel, security, operations }, target).split('\n');
    expect(lines).toEqual([
      `GET ${target} HTTP/1.1`,
      'Accept: application/json',
      ...(header === null ? [] : [header]),
      '',
      '',
    ]);
  });
});

describe('JSON laid out over lines', () => {
  test('means the same, whatever it is', () => {
    fc.assert(
      fc.property(fc.json(), (text) => {
        expect(JSON.parse(indentJson(text))).toEqual(JSON.parse(text));
      }),
      rounds(100),
    );
  });

  test.each([
    ['{"a":1,"b":[]}', '{ "a": 1, "b": [] }'],
    ['not JSON', 'not JSON'],
    [JSON.stringify({ name: 'x'.repeat(60) }), `{\n  "name": "${'x'.repeat(60)}"\n}`],
  ])('%s', (text, laidOut) => {
    expect(indentJson(text)).toBe(laidOut);
  });
});
