import {
  operationKey,
  WHOLE_API,
  withEdit,
  NO_CHOICES,
  type Choices,
  type DocumentationChoices,
  type DocumentedKind,
} from '@isomeros/core/arrangement';
import { documentable, NOTE_KINDS, ownTag, type Contract } from '@isomeros/core/contract';
import type { Model } from '@isomeros/core/model';
import fc from 'fast-check';

/** Something said: of which kind of subject, of which of them, in which field, and what. */
export type Saying = readonly (readonly [
  kind: DocumentedKind,
  subject: string,
  field: string,
  text: string,
])[];

/** Choices of one arrangement, with what is said. */
export const saying = (said: Saying, before: Choices = NO_CHOICES): Choices =>
  said.reduce<Choices>(
    (choices, [kind, subject, field, text]) =>
      withEdit(choices, 'main', 'documentation', { kind, subject, field, text }),
    before,
  );

const anySaid = fc.record(
  {
    summary: fc.constantFrom('All of them', '</script><b>x'),
    description: fc.constantFrom('*Every* one.\n\n- a\n- b', 'Says "so", as [listNothing] does'),
    externalUrl: fc.constant('https://docs.example/x'),
    tags: fc.constantFrom(ownTag('Fares'), `${ownTag('Fares')}, ${ownTag('Money')}`),
    deprecated: fc.constantFrom('2026-01-31', '2027-02-28'),
    sunset: fc.constant('2030-12-31'),
    unpublished: fc.constant('yes'),
  },
  { requiredKeys: [] },
);

/** What is said of the API and of a few operations and parts, by numbers of these. */
export const anyDocumentation = fc.record({
  api: fc.record(
    {
      title: fc.constantFrom('Ferries', 'Ünïcode'),
      summary: fc.constant('What sails'),
      description: fc.constant('One *line*.'),
      version: fc.constant('1.4.0'),
      contactName: fc.constant('Desk'),
      contactEmail: fc.constant('desk@ferries.example'),
      licenseName: fc.constant('MIT'),
      externalUrl: fc.constant('https://docs.example/'),
      tagOrder: fc.constant(`${ownTag('Money')}, entry`),
    },
    { requiredKeys: [] },
  ),
  server: fc.dictionary(
    fc.constantFrom('production', '__proto__'),
    fc.record(
      {
        url: fc.constantFrom('https://{region}.api.example/{stage}', '/behind'),
        variables: fc.constant('region: eu, us; stage: live'),
        description: fc.constant('Where it is served'),
      },
      { requiredKeys: [] },
    ),
    { maxKeys: 2 },
  ),
  operations: fc.array(fc.record({ pick: fc.nat(), said: anySaid, instead: fc.option(fc.nat()) }), {
    maxLength: 3,
  }),
  notes: fc.array(
    fc.record({
      kind: fc.constantFrom(...NOTE_KINDS),
      pick: fc.nat(),
      text: fc.constantFrom('As printed on the ticket.', 'Fits "so"; ${x} */ `y`'),
    }),
    { maxLength: 6 },
  ),
});

type DrawnDocumentation = typeof anyDocumentation extends fc.Arbitrary<infer Drawn> ? Drawn : never;

export function drawnDocumentation(
  contract: Contract,
  model: Model,
  { api, server, operations: drawn, notes }: DrawnDocumentation,
): DocumentationChoices {
  const { operations } = contract;
  const said: [DocumentedKind, string, string, string][] = Object.entries(api).map(([field, text]) => [
    'api',
    WHOLE_API,
    field,
    text,
  ]);
  for (const [name, fields] of Object.entries(server))
    for (const [field, text] of Object.entries(fields)) said.push(['server', name, field, text]);
  for (const { pick, said: texts, instead } of drawn) {
    const [found, other] = [pick, instead ?? pick].map((one) => operations[one % operations.length]);
    if (found === undefined || other === undefined) continue;
    const subject = operationKey(found.resource, found.verb);
    for (const [field, text] of Object.entries(texts)) said.push(['operation', subject, field, text]);
    if (instead !== null)
      said.push(['operation', subject, 'successor', operationKey(other.resource, other.verb)]);
  }
  for (const { kind, pick, text } of notes) {
    const subjects = [...documentable(kind, contract, model).keys()];
    const subject = subjects[pick % subjects.length];
    if (subject !== undefined)
      said.push([kind, subject, kind === 'constraint' ? 'message' : 'description', text]);
  }
  return saying(said).arrangements[0]?.documentation ?? {};
}

/** The same contract with every operation in its published document. */
export const everythingPublished = (contract: Contract): Contract => ({
  ...contract,
  operations: contract.operations.map((operation) =>
    operation.documentation === null
      ? operation
      : { ...operation, documentation: { ...operation.documentation, isPublished: true } },
  ),
});

/** Tags were described by nobody before format 5, and releases that were kept then stay so. */
export const withoutTagTexts = (contract: Contract): Contract => ({
  ...contract,
  documentation: {
    ...contract.documentation,
    tags: contract.documentation.tags.map((tag) => ({ ...tag, description: null })),
  },
});
