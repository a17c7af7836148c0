import { expect, test } from '@jest/globals';
import { indexContract, isReadable } from '@isomeros/core/contract';
import { exampleRequest } from '@isomeros/core/engine';
import fc from 'fast-check';
import { parseTemplate } from 'url-template';
import { anyArrangement, sampleDrawn } from '../support/arrangements.js';
import { TestMock } from '../support/mock.js';
import { rounds } from '../support/rounds.js';

interface Offered {
  readonly href: string;
  readonly templated?: boolean;
  readonly method?: string;
}

/** Every link in an answer, wherever it stands. */
function offeredIn(body: unknown, called: string): readonly Offered[] {
  if (Array.isArray(body)) return body.flatMap((one) => offeredIn(one, called));
  if (typeof body !== 'object' || body === null) return [];
  return Object.entries(body).flatMap(([name, value]) =>
    name === called && typeof value === 'object' && value !== null
      ? Object.values(value as Record<string, Offered | readonly Offered[]>).flat()
      : offeredIn(value, called),
  );
}

test('every link that is offered can be followed, and answers as its method says, whatever was chosen', () => {
  let followed = 0;
  let deeds = 0;
  fc.assert(
    fc.property(anyArrangement, ({ model, arrangement }) => {
      const own = {
        ...arrangement.own,
        security: [],
        links: 'object' as const,
        linkForm: 'path' as const,
        linkMethods: 'method' as const,
        mediaTypes: ['json' as const],
        recordEnvelope: 'none' as const,
        linksMember: 'goTo',
      };
      const mock = new TestMock(model, {}, { ...arrangement, own });
      const { contract } = mock.service;
      const index = indexContract(contract);
      const seen = new Set<string>();
      for (const operation of contract.operations) {
        if (operation.method !== 'GET' || !isReadable(index, operation.resource)) continue;
        const request = exampleRequest(mock.service, mock.dataset, operation, mock.now);
        const answer = request === null ? null : mock.exchange(request);
        if (answer?.status !== 200) continue;
        for (const { href, templated, method } of offeredIn(answer.body, contract.names.links)) {
          if (seen.has(href) || !href.startsWith('/')) continue;
          seen.add(href);
          // A template that nothing is filled into asks for what the contract does not have.
          if (templated === true) {
            expect(() => parseTemplate(href).expand({})).not.toThrow();
            continue;
          }
          if (method !== undefined) {
            const allowed = mock.send('OPTIONS', href).headers.get('allow') ?? '';
            expect([href, allowed.split(', ').includes(method)]).toEqual([href, true]);
            deeds++;
            continue;
          }
          const { status, handled } = mock.send('GET', href);
          const at = index.operations.get(handled.operation ?? '')?.resource;
          // What may be owned is linked so that it can be made.
          const isMissing = status === 404 && index.resources.get(at ?? '')?.kind === 'singleton';
          expect([operation.id, href, status]).toEqual([operation.id, href, isMissing ? 404 : 200]);
          followed++;
        }
      }
    }),
    { ...rounds(20), endOnFailure: true, examples: [[sampleDrawn()]] },
  );
  expect(followed).toBeGreaterThan(100);
  expect(deeds).toBeGreaterThan(0);
});
