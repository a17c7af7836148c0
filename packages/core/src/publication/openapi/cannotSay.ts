import type { Contract } from '../../contract/index.js';
import { unsaidPatterns } from '../scalarTypes.js';
import { linksOfOperation } from './links.js';

/** What of a contract an OpenAPI document does not say in words that programs read. */
export const cannotSay = (contract: Contract): readonly string[] => [
  ...unsaidLinks(contract),
  ...unsaidPatterns(contract),
];

/** Links that no runtime expression reaches (OAS §4.8.20.4), such as those of the records in a list. */
function unsaidLinks(contract: Contract): readonly string[] {
  const answers = new Map<string, number>();
  for (const operation of contract.operations)
    for (const { relation, object } of linksOfOperation(contract, operation))
      if (object === null) answers.set(relation, (answers.get(relation) ?? 0) + 1);
  if (answers.size === 0) return [];
  const named = [...answers].map(([relation, count]) => `${relation} (${count})`).join(', ');
  return [`No runtime expression leads along these links, of so many answers: ${named}.`];
}
