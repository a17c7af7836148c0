import { entryNamed, operationKey, saidOf, type SaidOf } from '../../arrangement/index.js';
import {
  memberSubject,
  NO_NOTES,
  type Contract,
  type Notes,
  type Operation,
  type Shape,
  operationNaming,
  type OperationNaming,
} from '../../contract/index.js';
import type { DerivationContext } from '../context.js';
import { apiDocumentation, externalOf } from './api.js';
import { findDangling } from './dangling.js';
import { findLost } from './lost.js';
import type { UndocumentedContract } from './undocumentedContract.js';
import { notesOf } from './notes.js';
import { findUndocumented } from './undocumented.js';
import { deriveTags } from './tags.js';

export { saidTitle } from './api.js';

/** A contract with what is said of it; what is said takes the place of what was derived. */
export function documented(context: DerivationContext, bare: UndocumentedContract): Contract {
  const names = operationNaming(bare.operations);
  const described = apiDocumentation(context, names);
  const { tags, tagsOf } = deriveTags(context, bare, names);
  const contract: Contract = {
    ...bare,
    ...described,
    documentation: {
      ...described.documentation,
      tags,
      notes: NO_NOTES,
    },
    operations: bare.operations.map((operation) => ({
      ...withWhatIsSaid(context, operation, names),
      tags: tagsOf.get(operation.id) ?? [],
    })),
    findings: context.findings,
  };
  findUndocumented(context, contract);
  findDangling(context, names);
  const notes = notesOf(context, contract, names);
  findLost(context, contract);
  if (notes === NO_NOTES) return contract;
  return {
    ...contract,
    shapes: withMemberNotes(contract.shapes, notes),
    documentation: { ...contract.documentation, notes },
  };
}

/** Members with what is said of them in the place of what the model says, and, where they are sent, of their bounds. */
const withMemberNotes = (shapes: readonly Shape[], { member: notes, constraint }: Notes): readonly Shape[] =>
  Object.keys(notes).length + Object.keys(constraint).length === 0
    ? shapes
    : shapes.map((shape) => ({
        ...shape,
        members: shape.members.map((member) => {
          const { source, mode, description } = member;
          const said = entryNamed(notes, memberSubject(source) ?? '')?.description ?? description;
          const isSent = source.kind === 'attribute' && mode !== 'returned';
          const words = isSent ? entryNamed(constraint, source.attribute)?.message : undefined;
          const told = [said, words].filter((text) => text != null).join(' ');
          return told === (description ?? '') ? member : { ...member, description: told };
        }),
      }));

function withWhatIsSaid(
  context: DerivationContext,
  operation: Operation,
  { idOf, named }: OperationNaming,
): Operation {
  const subject = operationKey(operation.resource, operation.verb);
  const said: SaidOf<'operation'> = saidOf(context.arrangement.documentation, 'operation', subject);
  const fields = Object.keys(said);
  if (fields.length === 0) return operation;
  return {
    ...operation,
    summary: said.summary ?? operation.summary,
    documentation: {
      summary: said.summary ?? null,
      description: said.description === undefined ? null : named(said.description),
      external: externalOf(said),
      deprecated: said.deprecated ?? null,
      sunset: said.sunset ?? null,
      successor: idOf.get(said.successor ?? '') ?? null,
      isPublished: said.unpublished === undefined,
    },
    reasons: [
      ...operation.reasons,
      {
        rule: 'operation.documented',
        because: [{ kind: 'documentation', of: 'operation', subject, fields, level: 'arrangement' }],
      },
    ],
  };
}
