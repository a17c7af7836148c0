import { operationKey, WHOLE_API, type DocumentationChoices, type SaidOf } from '@isomeros/core/arrangement';
import type { Contract } from '@isomeros/core/contract';
import fc from 'fast-check';

const anySaid: fc.Arbitrary<SaidOf<'operation'>> = fc.record(
  {
    summary: fc.constantFrom('All of them', '</script><b>x'),
    description: fc.constantFrom('*Every* one.\n\n- a\n- b', 'Says "so"'),
    externalUrl: fc.constant('https://docs.example/x'),
    deprecated: fc.constantFrom('2026-01-31', '2027-02-28'),
    sunset: fc.constant('2030-12-31'),
    unpublished: fc.constant('yes'),
  },
  { requiredKeys: [] },
);

/** What is said of the API and of a few operations, by numbers of these. */
export const anyDocumentation = fc.record({
  api: fc.record(
    {
      title: fc.constantFrom('Ferries', 'Ünïcode'),
      summary: fc.constant('What sails'),
      description: fc.constant('One *line*.'),
      contactName: fc.constant('Desk'),
      contactEmail: fc.constant('desk@ferries.example'),
      licenseName: fc.constant('MIT'),
      externalUrl: fc.constant('https://docs.example/'),
    },
    { requiredKeys: [] },
  ),
  operations: fc.array(fc.record({ pick: fc.nat(), said: anySaid }), { maxLength: 3 }),
});

type DrawnDocumentation = typeof anyDocumentation extends fc.Arbitrary<infer Drawn> ? Drawn : never;

export function drawnDocumentation(
  { operations }: Contract,
  { api, operations: drawn }: DrawnDocumentation,
): DocumentationChoices {
  const operation: Record<string, SaidOf<'operation'>> = {};
  for (const { pick, said } of drawn) {
    const found = operations[pick % operations.length];
    if (found !== undefined) operation[operationKey(found.resource, found.verb)] = said;
  }
  return { api: { [WHOLE_API]: api }, operation };
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
