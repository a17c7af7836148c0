import { saidOfKind } from '../../arrangement/index.js';
import {
  documentable,
  NO_NOTES,
  uniqueSubject,
  type Contract,
  type NoteKind,
  type Notes,
} from '../../contract/index.js';
import type { DerivationContext } from '../context.js';
import type { OperationNaming } from './naming.js';

const NOTE_KINDS = Object.keys(NO_NOTES) as readonly NoteKind[];

/** What is said of parts that are there. */
export function notesOf(context: DerivationContext, contract: Contract, { named }: OperationNaming): Notes {
  const { documentation } = context.arrangement;
  const usual = usualWords(context);
  const isSaid = NOTE_KINDS.some((kind) => Object.keys(saidOfKind(documentation, kind)).length > 0);
  if (!isSaid && Object.keys(usual).length === 0) return NO_NOTES;
  return Object.fromEntries(
    NOTE_KINDS.map((kind) => {
      const known = documentable(kind, contract, context.model);
      const said = Object.entries(saidOfKind(documentation, kind))
        .filter(([subject]) => known.has(subject))
        .map(([subject, texts]) => [
          subject,
          Object.fromEntries(Object.entries(texts).map(([field, text]) => [field, named(text)])),
        ]);
      return [kind, { ...(kind === 'constraint' ? usual : {}), ...Object.fromEntries(said) }];
    }),
  ) as unknown as Notes;
}

/** What the model says of uniquenesses is what their errors say where nothing else is said. */
const usualWords = ({ model }: DerivationContext): Notes['constraint'] =>
  Object.fromEntries(
    model.declarations.flatMap((one) =>
      one.kind !== 'entity'
        ? []
        : one.uniques.flatMap(({ id, description }) =>
            description === null ? [] : [[uniqueSubject(id), { message: description }] as const],
          ),
    ),
  );
