import { saidOfKind } from '../../arrangement/index.js';
import {
  documentable,
  NO_NOTES,
  NOTE_KINDS,
  type Contract,
  type Notes,
  type OperationNaming,
} from '../../contract/index.js';
import type { DerivationContext } from '../context.js';

/** What is said of parts that are there. */
export function notesOf(context: DerivationContext, contract: Contract, { named }: OperationNaming): Notes {
  const { documentation } = context.arrangement;
  const isSaid = NOTE_KINDS.some((kind) => Object.keys(saidOfKind(documentation, kind)).length > 0);
  if (!isSaid) return NO_NOTES;
  return Object.fromEntries(
    NOTE_KINDS.map((kind) => {
      const known = documentable(kind, contract, context.model);
      const said = Object.entries(saidOfKind(documentation, kind))
        .filter(([subject]) => known.has(subject))
        .map(([subject, texts]) => [
          subject,
          Object.fromEntries(Object.entries(texts).map(([field, text]) => [field, named(text)])),
        ]);
      return [kind, Object.fromEntries(said)];
    }),
  ) as unknown as Notes;
}
