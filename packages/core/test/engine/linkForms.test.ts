import { expect, test } from '@jest/globals';
import { isReadable, indexContract, type Contract } from '@isomeros/core/contract';
import { exampleRequest, type EngineRequest, type Service } from '@isomeros/core/engine';
import fc from 'fast-check';
import LinkHeader from 'http-link-header';
import { DisplayString, parseList } from 'structured-headers';
import { parseTemplate } from 'url-template';
import { anyArrangement, sampleDrawn } from '../support/arrangements.js';
import { TestMock, type Answer } from '../support/mock.js';
import { rounds } from '../support/rounds.js';

const HOST = 'mock.example';

/** One link as it was read: its relation as a name or an absolute URI, where it leads, and what it says of that. */
type ReadLink = Readonly<
  Record<'rel' | 'href' | 'title' | 'type' | 'hreflang' | 'name' | 'deprecation', string>
> & {
  readonly templated: boolean;
};

const TOLD = ['title', 'type', 'hreflang', 'name', 'deprecation'] as const;

const textOf = (value: unknown): string => (typeof value === 'string' ? value : '');

/** A cursor is signed for its contract; these have one for each form. */
const withoutCursor = (href: string): string => href.replace(/=eyJ[\w-]+\.[\w-]+/, '=…');

const linkOf = (rel: string, href: string, templated: boolean, told: (name: string) => unknown): ReadLink => {
  const texts = Object.fromEntries(TOLD.map((name) => [name, textOf(told(name))]));
  return { rel, href: withoutCursor(href), templated, ...texts } as ReadLink;
};

type LinkObject = Readonly<Record<string, unknown>>;

const eachOf = (links: unknown): readonly (readonly [string, LinkObject])[] =>
  Object.entries((links ?? {}) as Record<string, LinkObject | readonly LinkObject[]>).flatMap(([rel, one]) =>
    (Array.isArray(one) ? (one as readonly LinkObject[]) : [one as LinkObject]).map(
      (link) => [rel, link] as const,
    ),
  );

const fromObjects = (links: unknown, relation: (rel: string) => string): readonly ReadLink[] =>
  eachOf(links).map(([rel, link]) =>
    linkOf(relation(rel), String(link['href']), link['templated'] === true, (name) => link[name]),
  );

/** What `Link` says, by a parser that knows nothing of this product (RFC 8288, RFC 8187). */
function fromLink(text: string | undefined): readonly ReadLink[] {
  if (text === undefined) return [];
  return LinkHeader.parse(text).refs.map((ref) => {
    const extended = ref['title*'] as { readonly value?: string } | undefined;
    return linkOf(ref.rel, ref.uri, false, (name) =>
      name === 'title' ? (extended?.value ?? ref['title']) : ref[name],
    );
  });
}

/** The same of `Link-Template`, a structured field (RFC 9652, RFC 9651). */
function fromTemplates(text: string | undefined): readonly ReadLink[] {
  if (text === undefined) return [];
  return parseList(text).map(([target, parameters]) => {
    const told = new Map<string, unknown>(parameters);
    return linkOf(String(told.get('rel')), String(target), true, (name) => {
      const value = told.get(name);
      return value instanceof DisplayString ? value.toString() : value;
    });
  });
}

const sorted = (links: readonly ReadLink[]): readonly string[] =>
  [...new Set(links.map((link) => JSON.stringify(link)))].sort();

/** The contract with its links in another form. */
const withForm = (service: Service, links: 'object' | 'header'): Service => ({
  ...service,
  contract: {
    ...service.contract,
    representation: {
      ...service.contract.representation,
      links,
      record: null,
      mediaTypes: ['application/json', 'application/hal+json'],
    },
  },
});

function answersTo(
  mock: TestMock,
  request: EngineRequest,
): Readonly<Record<'object' | 'header' | 'hal', Answer>> {
  const ask = (links: 'object' | 'header', accept: string): Answer => {
    const service = withForm(mock.service, links);
    const headers = new Map([...request.headers, ['accept', accept], ['host', HOST]]);
    return mock.exchangeBy(service, { ...request, headers });
  };
  return {
    object: ask('object', 'application/json'),
    header: ask('header', 'application/json'),
    hal: ask('object', 'application/hal+json'),
  };
}

function setsIn(
  contract: Contract,
  { object, header, hal }: ReturnType<typeof answersTo>,
): readonly (readonly string[])[] {
  const besides = (answer: Answer): readonly ReadLink[] => [
    ...fromLink(answer.headers.get('link')),
    ...fromTemplates(answer.headers.get('link-template')),
  ];
  const byName = new Map(besides(header).map(({ rel }) => [rel.split('/').at(-1) ?? '', rel]));
  const { _links: halLinks } = hal.body as { _links: Record<string, unknown> };
  const [curie] = ((halLinks['curies'] ?? []) as readonly { href: string }[]).map(({ href }) =>
    parseTemplate(href),
  );
  const ofHal = Object.fromEntries(Object.entries(halLinks).filter(([rel]) => rel !== 'curies'));
  const whole = (rel: string): string =>
    rel.startsWith('rel:') && curie !== undefined ? curie.expand({ rel: rel.slice(4) }) : rel;
  const plain = (object.body as Record<string, unknown>)[contract.names.links];
  return [
    sorted(besides(header)),
    sorted([...fromObjects(plain, (rel) => byName.get(rel) ?? rel), ...besides(object)]),
    sorted([...fromObjects(ofHal, whole), ...besides(hal)]),
  ];
}

test('links are the same in an object, in headers and in HAL, whatever was chosen', () => {
  let compared = 0;
  let links = 0;
  fc.assert(
    fc.property(anyArrangement, ({ model, arrangement }) => {
      const mock = new TestMock(model, {}, { ...arrangement, own: { ...arrangement.own, security: [] } });
      const { contract } = mock.service;
      const index = indexContract(contract);
      for (const operation of contract.operations) {
        const resource = index.resources.get(operation.resource);
        const isBare = operation.paging?.envelope === 'bare' || operation.custom?.kind === 'query';
        if (operation.method !== 'GET' || !isReadable(index, operation.resource) || isBare) continue;
        // A link to each record is not needed in HAL, where the records carry their own.
        if (resource?.links.some(({ target }) => target.kind === 'items') === true) continue;
        if (resource?.kind === 'fixed' || resource?.kind === 'aggregate') continue;
        const request = exampleRequest(mock.service, mock.dataset, operation, mock.now);
        if (request === null) continue;
        const answers = answersTo(mock, request);
        if (answers.object.status !== 200) continue;
        const [inHeaders, inObject, inHal] = setsIn(contract, answers);
        expect([operation.id, inObject]).toEqual([operation.id, inHeaders]);
        expect([operation.id, inHal]).toEqual([operation.id, inHeaders]);
        compared++;
        links += inHeaders?.length ?? 0;
      }
    }),
    { ...rounds(20), endOnFailure: true, examples: [[sampleDrawn()]] },
  );
  expect(compared).toBeGreaterThan(20);
  expect(links).toBeGreaterThan(100);
});
