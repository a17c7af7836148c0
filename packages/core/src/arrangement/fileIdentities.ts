import { identitiesOf, isJsonObject, type Identities, type Json } from '../model/index.js';
import { parse } from '../notation/index.js';
import { escapePointer, type ChoiceProblem, type ReadResult } from './reading.js';

export type DesignFileProblem = ChoiceProblem;

export const fileProblem = (pointer: string, code: string, message: string): DesignFileProblem => ({
  pointer,
  code,
  message,
});

/** `at`: where the member stands that has them. */
export function readFileIdentities(given: Json | undefined, at = ''): ReadResult<Identities> {
  if (given === undefined) return { value: {}, problems: [] };
  if (!isJsonObject(given))
    return { value: {}, problems: [fileProblem(`${at}/identities`, 'type', 'Expected an object.')] };
  const problems = Object.entries(given).flatMap(([address, id]) =>
    typeof id === 'string' && id !== ''
      ? []
      : [
          fileProblem(
            `${at}/identities/${escapePointer(address)}`,
            'type',
            'Expected a text that is not empty.',
          ),
        ],
  );
  return { value: problems.length === 0 ? (given as Identities) : {}, problems };
}

/** The identities of what the model has; two elements never share one. */
export function knownIdentities(text: string, given: Identities): Identities {
  const taken = new Set<string>();
  const known: Record<string, string> = {};
  for (const address of identitiesOf(parse(text).model).keys()) {
    const wanted = Object.hasOwn(given, address) ? (given[address] ?? address) : address;
    if (taken.has(wanted)) continue;
    taken.add(wanted);
    known[address] = wanted;
  }
  return known;
}
