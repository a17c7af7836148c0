import { operationKey, type DocumentedKind, type SaidOf } from '../arrangement/index.js';
import { memoize, storageOf, type Model } from '../model/index.js';
import type { NoteKind } from './documentation.js';
import type { HeaderUse } from './header.js';
import { requestHeaders, responseHeaders } from './headers.js';
import { indexContract } from './lookup.js';
import type { Field, Operation, QueryParameter, ResponseCase } from './operation.js';
import { PROBLEMS } from './problems.js';
import type { MemberSource } from './shape.js';
import type { Contract, Segment } from './types.js';

const ownerOf = (relationship: string): string => `owner ${relationship}`;

/** What a note on a member is filed by; `null` for the structure around records, which says what it is. */
export function memberSubject(source: MemberSource): string | null {
  switch (source.kind) {
    case 'attribute':
    case 'computed':
      return source.attribute;
    case 'owner':
      return ownerOf(source.relationship);
    case 'reference':
    case 'slot':
    case 'inline':
      return source.relationship;
    case 'carried':
      return `carried ${source.relationship}`;
    case 'expanded':
    case 'links':
    case 'items':
    case 'page':
    case 'input':
    case 'token':
    case 'count':
    case 'aggregate':
    case 'fixed':
      return null;
  }
}

function fieldSubject(field: Field): string {
  switch (field.kind) {
    case 'attribute':
    case 'computed':
      return field.attribute;
    case 'reference':
      return field.relationship;
    case 'owner':
      return ownerOf(field.relationship);
    case 'through':
      return `${field.relationship} ${fieldSubject(field.of)}`;
  }
}

/** What a note on a query parameter is filed by: one that means the same everywhere is noted once. */
export function parameterSubject(
  contract: Contract,
  operation: Operation,
  parameter: QueryParameter,
): string {
  switch (parameter.role) {
    case 'filter':
      return `filter ${fieldSubject(parameter.field)}`;
    case 'input':
      return `input ${indexContract(contract).resources.get(operation.resource)?.custom ?? ''} ${parameter.name}`;
    default:
      return parameter.role;
  }
}

/** What a note on a parameter of the path is filed by; `null` where no resource has its records. */
export function pathSubject(contract: Contract, { entity }: Extract<Segment, { kind: 'id' }>): string | null {
  const home = indexContract(contract).canonical.get(entity);
  return home === undefined ? null : `path ${home.id}`;
}

/** What a note on an answer is filed by. */
export const responseSubject = ({ resource, verb }: Operation, { code }: ResponseCase): string =>
  `${operationKey(resource, verb)} ${code}`;

/** Every header of an operation, in requests and answers, each once. */
export function headersOfOperation(contract: Contract, operation: Operation): readonly HeaderUse[] {
  const all = [
    ...requestHeaders(contract, operation),
    ...casesByStatus(operation.responses).flatMap(([, cases]) => responseHeaders(contract, operation, cases)),
  ];
  return [...new Map(all.map((use) => [use.subject, use])).values()];
}

/** The answers of an operation that share a status, by it. */
export function casesByStatus(
  responses: readonly ResponseCase[],
): readonly (readonly [status: number, cases: readonly ResponseCase[]])[] {
  const byStatus = new Map<number, ResponseCase[]>();
  for (const response of responses) {
    const cases = byStatus.get(response.status);
    if (cases === undefined) byStatus.set(response.status, [response]);
    else cases.push(response);
  }
  return [...byStatus];
}

/** Everything of one kind that something can be said of, by what it is filed by, with what it is called. */
export function documentable(
  kind: Exclude<DocumentedKind, 'api' | 'server' | 'tag'>,
  contract: Contract,
  model: Model,
): ReadonlyMap<string, string> {
  switch (kind) {
    case 'operation':
      return new Map(contract.operations.map((one) => [operationKey(one.resource, one.verb), one.id]));
    case 'member':
      return new Map(
        contract.shapes.flatMap(({ members, of }) =>
          members.flatMap(({ name, source }) => {
            const subject = memberSubject(source);
            return subject === null ? [] : [[subject, `${of ?? ''}.${name}`] as const];
          }),
        ),
      );
    case 'parameter':
      return new Map([...pathNames(contract), ...queryNames(contract)]);
    case 'header':
      return new Map(
        contract.operations.flatMap((operation) =>
          headersOfOperation(contract, operation).map(({ subject, name }) => [subject, name] as const),
        ),
      );
    case 'response':
      return new Map(
        contract.operations.flatMap((operation) =>
          operation.responses.map(
            (one) => [responseSubject(operation, one), `${one.status} of ${operation.id}`] as const,
          ),
        ),
      );
    case 'constraint':
      return constraintNames(model);
    case 'problem':
      return new Map(Object.entries(PROBLEMS).map(([code, { title }]) => [code, title]));
  }
}

const pathNames = (contract: Contract): readonly (readonly [string, string])[] =>
  contract.resources.flatMap(({ segments }) =>
    segments.flatMap((segment) => {
      const subject = segment.kind === 'id' ? pathSubject(contract, segment) : null;
      return segment.kind === 'id' && subject !== null ? [[subject, `{${segment.parameter}}`] as const] : [];
    }),
  );

const queryNames = (contract: Contract): readonly (readonly [string, string])[] =>
  contract.operations.flatMap((operation) =>
    operation.query.map(
      (parameter) => [parameterSubject(contract, operation, parameter), `?${parameter.name}=`] as const,
    ),
  );

/** What records must satisfy beyond having the right types: bounds, uniqueness, conditions of transitions. */
function constraintNames(model: Model): ReadonlyMap<string, string> {
  const found: [string, string][] = [];
  for (const { entity, attributes, uniques } of storageOf(model).byId.values()) {
    for (const { id, name, lifeCycle } of attributes) {
      found.push([id, `${entity.name}.${name}`]);
      for (const transition of lifeCycle ?? [])
        found.push([transition.id, `${transition.name} of ${entity.name}`]);
    }
    for (const { id, names } of uniques)
      found.push([uniqueSubject(id), `unique ${names.join(', ')} of ${entity.name}`]);
  }
  return new Map(found);
}

/** What the words about a uniqueness are filed by; an attribute may have bounds and be unique. */
export const uniqueSubject = (id: string): string => `unique ${id}`;

/** What the model says of uniquenesses: what their errors say where nothing else is said. */
export const usualWords = memoize(
  (model: Model): ReadonlyMap<string, string> =>
    new Map(
      model.declarations.flatMap((one) =>
        one.kind === 'entity'
          ? one.uniques.flatMap(({ id, description }) =>
              description === null ? [] : [[uniqueSubject(id), description] as const],
            )
          : [],
      ),
    ),
);

/** Whether nothing is said at all: subjects are many, and are not looked for then. */
const isNothing = memoize((notes: object): boolean => Object.keys(notes).length === 0);

/** What is said of a part; nothing where the model's own texts and what is derived hold. */
export const noteOn = <Kind extends NoteKind>(
  { documentation }: Pick<Contract, 'documentation'>,
  kind: Kind,
  subject: string | null,
): SaidOf<Kind> | null => {
  const notes = documentation.notes[kind] as Readonly<Record<string, SaidOf<Kind>>>;
  if (subject === null || isNothing(notes)) return null;
  return Object.hasOwn(notes, subject) ? (notes[subject] ?? null) : null;
};
