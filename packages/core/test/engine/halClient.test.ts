import { expect, test } from '@jest/globals';
import { indexContract } from '@isomeros/core/contract';
import { Client } from 'ketting';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { linkedBy, type Lines } from '../support/ownLinks.js';
import { kestrelText, toolShedText } from '../support/samples.js';

const ORIGIN = 'http://mock.example';

/** A general client of HAL, which knows nothing of this product, with the mock in the place of the network. */
function clientOf(mock: TestMock): Client {
  const client = new Client(ORIGIN);
  client.use((request: Request) => {
    const { pathname, search } = new URL(request.url);
    const headers = { accept: 'application/hal+json', host: new URL(ORIGIN).host };
    const answer = mock.send(request.method, pathname + search, undefined, headers);
    const body = answer.status === 304 ? null : JSON.stringify(answer.body);
    return Promise.resolve(new Response(body, { status: answer.status, headers: [...answer.headers] }));
  });
  return client;
}

/** Reads everything that links lead to from the entry; the addresses that were read. */
async function readAll(mock: TestMock): Promise<ReadonlySet<string>> {
  const client = clientOf(mock);
  const { root } = mock.service.contract;
  const waiting = [ORIGIN + root];
  const seen = new Set(waiting);
  const read = new Set<string>();
  const meet = (uri: string): void => {
    const path = uri.replace(ORIGIN, '').replace(/\?.*/s, '');
    if (!uri.startsWith(ORIGIN) || seen.has(uri) || path.startsWith(`${root}/-/`)) return;
    // What is no GET is known by answering 405.
    seen.add(uri);
    waiting.push(uri);
  };
  for (let uri = waiting.pop(); uri !== undefined; uri = waiting.pop()) {
    const response = await client.go(uri).fetch();
    if (response.status === 405) continue;
    const state = await client.getStateForResponse(uri, response);
    read.add(new URL(uri).pathname);
    for (const one of [state, ...state.getEmbedded()]) {
      meet(one.uri);
      for (const { href, templated, rel } of one.links.getAll())
        if (templated !== true && rel !== 'curies') meet(new URL(href, uri).href);
    }
  }
  return read;
}

const BOTH: readonly (readonly [string, string, Lines])[] = [
  [
    'ferries',
    kestrelText,
    [
      ['', 'harbour-notices -> listNotices, size 2'],
      ['/bookings/{bookingId}', 'captain -> sailing.master'],
      ['/harbours/{harbourCode}', 'manual -> "https://docs.example/harbours/{code}"'],
    ],
  ],
  ['tools', toolShedText, []],
];

test.each(BOTH)(
  'a general client of HAL reads every resource of the %s from the entry',
  async (_, text, lines) => {
    const model = modelOf(text);
    const mock = new TestMock(model, {}, linkedBy(model, lines));
    const { contract } = mock.service;
    const read = [...(await readAll(mock))];
    const { operationsOf } = indexContract(contract);
    const unread = contract.resources.filter(({ id, path }) => {
      const isRead = (operationsOf.get(id) ?? []).some(({ method }) => method === 'GET');
      const pattern = new RegExp(`^${contract.root}${path.replace(/\{[^}]*\}/g, '[^/]+')}$`);
      return isRead && !read.some((one) => pattern.test(one));
    });
    expect(unread.map(({ path }) => path)).toEqual([]);
    expect(read.length).toBeGreaterThan(contract.resources.length);
  },
);
