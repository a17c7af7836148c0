import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, plainArrangement, type SettingValues } from '@isomeros/core/arrangement';
import { indexContract, type Contract } from '@isomeros/core/contract';
import { indexModel } from '@isomeros/core/model';
import fc from 'fast-check';
import { anyArrangement } from '../support/arrangements.js';
import { TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { rounds } from '../support/rounds.js';

const HOST = 'http://127.0.0.1:4010';

/** Everything a client finds in an answer that leads somewhere, templates filled in by what is listed. */
function hrefsIn({ headers, body }: Answer): string[] {
  const found: string[] = [];
  const templates: string[] = [];
  for (const [, href = ''] of (headers.get('link') ?? '').matchAll(/<([^>]*)>/g)) found.push(href);
  for (const [, href = ''] of (headers.get('link-template') ?? '').matchAll(/"([^"]*)"; rel=/g))
    templates.push(href);
  const records: Record<string, unknown>[] = [];
  const look = (value: unknown, name: string): void => {
    if (Array.isArray(value)) {
      value.forEach((one) => {
        look(one, name);
      });
      return;
    }
    if (typeof value !== 'object' || value === null) return;
    records.push(value as Record<string, unknown>);
    const { href, templated } = value as { href?: unknown; templated?: unknown };
    if (typeof href === 'string' && name !== 'curies') (templated === true ? templates : found).push(href);
    for (const [key, inner] of Object.entries(value)) look(inner, key);
  };
  look(body, '');
  // What a query is asked for only the client knows.
  for (const template of templates.map((one) => one.replace(/\{\?[\w,-]+\}/, '')))
    for (const record of records) {
      const names = [...template.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => name);
      if (names.some((name) => record[name] === undefined || record[name] === null)) continue;
      found.push(
        template.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(String(record[name]))),
      );
    }
  return found;
}

/** Whatever may stand in a URI as it is (RFC 3986), brackets but those of an IPv6 address apart. */
const URI_REFERENCE = /^[\w\-.~:/?#@!$&'()*+,;=%]+$/;

/** Follows every link from the entry on; the paths that each operation answered. */
function follow(mock: TestMock, accept: string): ReadonlyMap<string, ReadonlySet<string>> {
  const { root } = mock.service.contract;
  const answered = new Map<string, Set<string>>();
  const waiting = [root === '' ? '/' : root];
  const seen = new Set(waiting);
  for (let target = waiting.pop(); target !== undefined; target = waiting.pop()) {
    if (target.startsWith(`${root}/-/`)) continue;
    const answer = mock.send('GET', target, undefined, { accept, host: HOST.slice('http://'.length) });
    const { operation } = answer.handled;
    if (answer.status !== 200 || operation === null) continue;
    const paths = answered.get(operation) ?? new Set();
    answered.set(operation, paths.add(target.split('?')[0] ?? ''));
    for (const href of hrefsIn(answer)) {
      expect(href).toMatch(URI_REFERENCE);
      const next = href.startsWith(HOST) ? href.slice(HOST.length) : href;
      if (seen.has(next)) continue;
      seen.add(next);
      waiting.push(next);
    }
  }
  return answered;
}

/** Entities of which some record is not to be found by following links, with how many were and how many there are. */
function unreached(mock: TestMock, accept: string): readonly string[] {
  const { canonical, operationsOf } = indexContract(mock.service.contract);
  const answered = follow(mock, accept);
  const { entities } = indexModel(mock.service.model);
  return [...canonical].flatMap(([entity, home]) => {
    const read = operationsOf.get(home.id)?.find(({ verb }) => verb === 'read');
    const found = answered.get(read?.id ?? '')?.size ?? 0;
    const { length } = mock.rows.filter((row) => row.entity === entities.get(entity)?.id);
    return found === length ? [] : [`${entity}: ${found} of ${length}`];
  });
}

/** Whether something is left out, and said to be. */
const hasLeftOut = ({ findings, operations, representation, resources }: Contract): boolean =>
  representation.memberLinks === 'none' ||
  resources.some(({ leftOutLinks }) => leftOutLinks.length > 0) ||
  operations.some(({ paging }) => paging?.ceiling != null) ||
  resources.some(({ leftOut }) => leftOut.some(({ method }) => method === 'GET')) ||
  findings.some(({ id, severity }) => severity === 'error' || id === 'children.unlinked');

describe('following the links of answers, from the entry', () => {
  test('leads to every record, whatever the model, its arrangement and the form of links', () => {
    fc.assert(
      fc.property(
        anyArrangement,
        fc.constantFrom('object', 'header'),
        fc.constantFrom('path', 'absolute'),
        ({ model, arrangement }, links, linkForm) => {
          const own: SettingValues = { ...arrangement.own, links, linkForm, security: [] };
          const mock = new TestMock(model, {}, { ...arrangement, own });
          const { contract } = mock.service;
          if (hasLeftOut(contract)) return;
          for (const type of contract.representation.mediaTypes)
            expect([type, unreached(mock, type)]).toEqual([type, []]);
        },
      ),
      rounds(30),
    );
  });

  const sample = modelOf(kestrelText);
  const served = (settings: SettingValues): TestMock => {
    const main = { ...plainArrangement('main'), settings };
    return new TestMock(sample, {}, arrangementOf('main', { ...NO_CHOICES, arrangements: [main] }));
  };

  test.each([
    ['in headers', { links: 'header' }],
    ['in headers of bare lists', { links: 'header', envelope: 'bare' }],
    ['in headers, by cursors', { links: 'header', pageStyle: 'cursor', pageSize: 3 }],
    ['in headers, in kebab case, which no template names', { links: 'header', memberCase: 'kebab' }],
    ['in headers, everything in one path', { links: 'header', depth: 1 }],
    ['as whole URIs', { linkForm: 'absolute' }],
    ['at the root of the host', { basePath: '', versionIn: 'nowhere' }],
  ] as const)('leads to every record of the sample with links %s', (_, settings) => {
    expect(unreached(served(settings), 'application/json')).toEqual([]);
  });
});
