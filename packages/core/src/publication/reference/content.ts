import {
  isPublished,
  answerTypes,
  casesByStatus,
  envelopeText,
  indexContract,
  inOutRows,
  memberSubject,
  memberTypeText,
  noteOn,
  reasonPhrase,
  responseHeaders,
  responseSubject,
  requestHeaders,
  shapeIn,
  wholePath,
  type Contract,
  type InOutRow,
  type Operation,
  type SecurityScheme,
  type Shape,
} from '../../contract/index.js';
import { entryOf } from '../../model/index.js';
import type { PublicationSource, PublishedExample } from '../source.js';
import { headerText } from '../openapi/parameters.js';

/** What a reference says of one API, before it is written in some markup. Descriptions are in CommonMark. */
export interface ReferenceContent {
  readonly contract: Contract;
  readonly groups: readonly ReferenceGroup[];
  readonly shapes: readonly Shape[];
  /** The headers that many operations take alike. */
  readonly headers: readonly SentPart[];
  /** The errors that many operations answer with alike. */
  readonly errors: readonly AnswerFacts[];
  /** How clients prove who they are, a sentence each. */
  readonly credentials: readonly string[];
  readonly isOperation: (id: string) => boolean;
}

/** Operations under one tag. */
export interface ReferenceGroup {
  readonly title: string;
  readonly description: string | null;
  readonly operations: readonly ReferenceOperation[];
}

export interface ReferenceOperation {
  readonly operation: Operation;
  readonly path: string;
  /** Who may, and what it does to the state of the server. */
  readonly facts: readonly string[];
  /** What is to be known before it is used: when it ends, and what comes after. */
  readonly ends: string | null;
  /** Without the headers that many operations take alike. */
  readonly sent: readonly SentPart[];
  /** Those headers, by their place among them. */
  readonly sharedHeaders: readonly number[];
  readonly body: BodyFacts | null;
  /** Without the errors that many operations answer with alike. */
  readonly answers: readonly AnswerFacts[];
  /** Those errors, by their place among them. */
  readonly sharedErrors: readonly number[];
  readonly examples: readonly PublishedExample[];
}

export interface SentPart {
  readonly name: string;
  readonly place: InOutRow['place'] | 'header';
  readonly type: string;
  readonly isRequired: boolean;
  readonly note: string;
}

export interface BodyFacts {
  /** `null` where what is sent has no shape of its own. */
  readonly shape: string | null;
  readonly types: readonly string[];
  readonly around: string | null;
}

export interface AnswerFacts {
  readonly status: number;
  readonly phrase: string;
  readonly when: string;
  readonly body: BodyFacts | null;
  readonly headers: readonly { readonly name: string; readonly note: string }[];
}

const EFFECTS: Readonly<Record<Operation['effect'], string>> = {
  safe: 'changes nothing',
  idempotent: 'sent twice, it does the same as once',
  neither: 'sent twice, it does it twice',
};

/** Everything of a contract that is published, each operation under the first of its tags. */
export function referenceContent({ contract, examples }: PublicationSource): ReferenceContent {
  const published = contract.operations.filter(isPublished);
  const all = examples();
  const parts = published.map((operation): OperationParts => ({
    operation,
    sent: sentParts(contract, operation),
    answered: answers(contract, operation),
  }));
  const headers = toldOnce(
    parts.flatMap(({ sent }) => sent.filter(isOptionalHeader)),
    published.length,
  );
  const errors = toldOnce(
    parts.flatMap(({ answered }) => answered.filter(isError)),
    published.length,
  ).sort((one, other) => one.status - other.status);
  const shared: SharedParts = { headers: placesIn(headers), errors: placesIn(errors) };
  const ids = new Set(published.map(({ id }) => id));
  const byTag = new Map<string, ReferenceOperation[]>();
  for (const one of parts) {
    const content = operationContent(contract, one, all.get(one.operation.id) ?? [], shared);
    entryOf(byTag, one.operation.tags[0] ?? '', (): ReferenceOperation[] => []).push(content);
  }
  const groups = contract.documentation.tags.flatMap(({ id, title, description }) => {
    const operations = byTag.get(id);
    return operations === undefined ? [] : [{ title, description, operations }];
  });
  return {
    contract,
    groups,
    shapes: contract.shapes,
    headers,
    errors,
    credentials: contract.security.schemes.map((scheme) =>
      credentialText(scheme, contract.security.keyHeader),
    ),
    isOperation: (id) => ids.has(id),
  };
}

/** What is said of errors before any of them, in CommonMark. */
export const ABOUT_ERRORS =
  'Every error is problem details (RFC 9457) as `application/problem+json`: `type`, `title`, `status`, `detail`, and in `errors` each thing that is wrong, with a pointer into the body or the name of the parameter.';

const isError = ({ status }: AnswerFacts): boolean => status >= 400;
const isOptionalHeader = ({ place, isRequired }: SentPart): boolean => place === 'header' && !isRequired;

/** The places of what is told once, by what it says. */
interface SharedParts {
  readonly headers: ReadonlyMap<string, number>;
  readonly errors: ReadonlyMap<string, number>;
}

const said = (part: SentPart | AnswerFacts): string => JSON.stringify(part);

const placesIn = (parts: readonly (SentPart | AnswerFacts)[]): ReadonlyMap<string, number> =>
  new Map(parts.map((part, at) => [said(part), at]));

/** What a tenth of the operations have alike, and some at least, is told once for all of them. */
const SHARE = 10;
const FEWEST = 3;

function toldOnce<Part extends SentPart | AnswerFacts>(parts: readonly Part[], operations: number): Part[] {
  const uses = new Map<string, { readonly part: Part; count: number }>();
  for (const part of parts) entryOf(uses, said(part), () => ({ part, count: 0 })).count++;
  const many = Math.max(FEWEST, operations / SHARE);
  return [...uses.values()].filter(({ count }) => count >= many).map(({ part }) => part);
}

/** Parts that are an operation's own, and the places of those that are told once. */
function divided<Part extends SentPart | AnswerFacts>(
  parts: readonly Part[],
  shared: ReadonlyMap<string, number>,
): { readonly own: readonly Part[]; readonly places: readonly number[] } {
  return {
    own: parts.filter((part) => !shared.has(said(part))),
    places: parts.flatMap((part) => shared.get(said(part)) ?? []),
  };
}

function credentialText(scheme: SecurityScheme, keyHeader: string): string {
  switch (scheme) {
    case 'basic':
      return 'User and password, by HTTP Basic (RFC 7617).';
    case 'bearer':
      return 'A token: Authorization: Bearer … (RFC 6750).';
    case 'key':
      return `A key, in the header ${keyHeader}.`;
  }
}

/** All that an operation takes and answers. */
interface OperationParts {
  readonly operation: Operation;
  readonly sent: readonly SentPart[];
  readonly answered: readonly AnswerFacts[];
}

function operationContent(
  contract: Contract,
  parts: OperationParts,
  examples: readonly PublishedExample[],
  shared: SharedParts,
): ReferenceOperation {
  const { operation } = parts;
  const sent = divided(parts.sent, shared.headers);
  const answered = divided(parts.answered, shared.errors);
  return {
    operation,
    path: wholePath(contract, operation.resource),
    facts: [operation.id, whoMay(operation), EFFECTS[operation.effect]],
    ends: endText(operation),
    sent: sent.own,
    sharedHeaders: sent.places,
    body: sentBody(contract, operation),
    answers: answered.own,
    sharedErrors: answered.places,
    examples,
  };
}

function whoMay({ access }: Operation): string {
  switch (access.kind) {
    case 'anonymous':
      return 'for anybody';
    case 'authenticated':
      return 'for whoever is known';
    case 'role':
      return `for the role ${access.role}`;
  }
}

function endText({ documentation }: Operation): string | null {
  const { deprecated = null, sunset = null, successor = null } = documentation ?? {};
  if (deprecated === null && sunset === null) return null;
  const parts = [
    ...(deprecated === null ? [] : [`Deprecated from ${deprecated}.`]),
    ...(sunset === null ? [] : [`It stops answering on ${sunset}.`]),
    ...(successor === null ? [] : [`In its place: [${successor}].`]),
  ];
  return parts.join(' ');
}

function sentParts(contract: Contract, operation: Operation): readonly SentPart[] {
  const rows = inOutRows(contract, operation)
    .filter((row) => row.place !== 'body')
    .map(({ name, place, type, in: how, noted, usual }): SentPart => {
      const said = noted === null ? null : noteOn(contract, noted.kind, noted.subject);
      return { name, place, type, isRequired: how === 'must', note: said?.description ?? usual };
    });
  const headers = requestHeaders(contract, operation).map((use): SentPart => ({
    name: use.name,
    place: 'header',
    type: 'text',
    isRequired: use.isRequired,
    note: headerText(contract, use),
  }));
  return [...rows, ...headers];
}

function sentBody(contract: Contract, operation: Operation): BodyFacts | null {
  const { accepts, acceptedTypes } = operation;
  return accepts === null
    ? null
    : { shape: accepts, types: acceptedTypes, around: envelopeText(contract, operation) };
}

function answers(contract: Contract, operation: Operation): readonly AnswerFacts[] {
  return casesByStatus(operation.responses).map(([status, cases]): AnswerFacts => {
    const when = cases.map(
      (one) => noteOn(contract, 'response', responseSubject(operation, one))?.description ?? one.when,
    );
    const hasBody = status < 300 && status !== 204;
    const body = !hasBody
      ? null
      : { shape: operation.returns, types: answerTypes(contract, operation), around: null };
    const headers = responseHeaders(contract, operation, cases).map((use) => ({
      name: use.name,
      note: headerText(contract, use),
    }));
    return { status, phrase: reasonPhrase(status), when: when.join(' '), body, headers };
  });
}

/** A member of a shape as a reference lists it. */
export interface MemberFacts {
  readonly name: string;
  readonly type: string;
  /** The shape that its values have; `null` where they have none. */
  readonly shape: string | null;
  readonly isRequired: boolean;
  readonly note: string;
}

export const memberFacts = (contract: Contract, { members }: Shape): readonly MemberFacts[] =>
  members.map((member) => ({
    name: member.name,
    type: memberTypeText(member) + (member.nullable ? ', or null' : ''),
    shape: shapeIn(member.type),
    isRequired: member.required,
    note: noteOn(contract, 'member', memberSubject(member.source))?.description ?? member.description ?? '',
  }));

/** Whether a shape of a contract stands under that name. */
export const isShape = (contract: Contract, name: string): boolean =>
  indexContract(contract).shapes.has(name);
