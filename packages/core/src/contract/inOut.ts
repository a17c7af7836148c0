import type { FilterOperator } from '../arrangement/index.js';
import { printType } from '../notation/index.js';
import { DIRECTIONS } from './directions.js';
import { memberSubject, parameterSubject, pathSubject } from './documented.js';
import { isOneRecord, takesEnveloped } from './enveloped.js';
import { filterTerm, type FilterParameter } from './filterTerm.js';
import { indexContract } from './lookup.js';
import type { Operation } from './operation.js';
import type { Reasons } from './reasons.js';
import type { Member, MemberType } from './shape.js';
import type { Contract } from './types.js';

/** Whether something must, may, or cannot be sent. */
export type In = 'must' | 'may' | 'no';

/** One thing that goes into an operation or comes out of it. */
export interface InOutRow {
  readonly name: string;
  /** Where it travels: in the path, the query, or the body. */
  readonly place: 'path' | 'query' | 'body';
  readonly type: string;
  readonly in: In;
  readonly out: boolean;
  /** What a note on it is filed by; `null` where there is nothing to note. */
  readonly noted: { readonly kind: 'member' | 'parameter'; readonly subject: string } | null;
  /** What the model says of it. */
  readonly usual: string;
  readonly reasons: Reasons;
}

/** Everything that goes into an operation and comes out of it, in the order it travels. */
export function inOutRows(contract: Contract, operation: Operation): readonly InOutRow[] {
  const { resources, shapes } = indexContract(contract);
  const resource = resources.get(operation.resource);
  const path = (resource?.segments ?? []).flatMap((segment): InOutRow[] =>
    segment.kind === 'literal'
      ? []
      : [
          {
            name: `{${segment.parameter}}`,
            place: 'path',
            type: printType(segment.type),
            in: 'must',
            out: false,
            noted: notedBy('parameter', pathSubject(contract, segment)),
            usual: '',
            reasons: resource?.reasons ?? [],
          },
        ],
  );
  const query = operation.query.map((parameter): InOutRow => ({
    name: parameter.name,
    place: 'query',
    type: parameterType(parameter),
    in: parameter.role === 'input' && parameter.default === null ? 'must' : 'may',
    out: false,
    noted: notedBy('parameter', parameterSubject(contract, operation, parameter)),
    usual: '',
    reasons: parameter.reasons,
  }));
  const accepted = shapes.get(operation.accepts ?? '')?.members ?? [];
  const returned = shapes.get(operation.returns ?? '')?.members ?? [];
  return [...path, ...query, ...bodyRows(accepted, returned)];
}

/** Where one record stands in the bodies of an operation, in words; `null` where it is the body. */
export function envelopeText(contract: Contract, operation: Operation): string | null {
  const { record } = contract.representation;
  const returned = indexContract(contract).shapes.get(operation.returns ?? '');
  const isAnswered = returned !== undefined && isOneRecord(returned);
  const taken = takesEnveloped(contract, operation);
  if (record === null || (!isAnswered && taken === 'never')) return null;
  const where = !isAnswered ? 'sent' : taken === 'always' ? 'sent and answered' : 'answered';
  const beside = [
    ...(isAnswered && record.links === 'beside' ? [contract.names.links] : []),
    ...(isAnswered ? record.constants.map(({ name, value }) => `${name}: ${JSON.stringify(value)}`) : []),
  ];
  return `in JSON ${where} in ${record.member}${beside.length === 0 ? '' : `, beside it ${beside.join(', ')}`}`;
}

function parameterType(parameter: Operation['query'][number]): string {
  switch (parameter.role) {
    case 'page':
      return 'integer(1..), default 1';
    case 'offset':
      return 'integer(0..), default 0';
    case 'cursor':
      return 'text, as a page told it';
    case 'search':
      return `text, looked for in ${parameter.fields.length === 1 ? 'one member' : `${parameter.fields.length} members`}`;
    case 'fields':
      return `some of ${named(parameter.names, 'members')}`;
    case 'expand':
      return parameter.depth === 1
        ? `any of ${parameter.names.join(', ')}`
        : `any of ${parameter.names.join(', ')}, ${parameter.depth} steps deep`;
    case 'size':
      return `integer(1..${parameter.max}), default ${parameter.default}`;
    case 'sort':
      return `any of ${named(
        parameter.keys.map(({ name }) => name),
        'keys',
      )}${DIRECTIONS[parameter.style]}`;
    case 'input':
      return printType(parameter.type);
    case 'order':
      return 'asc or desc for each key';
    case 'filter': {
      const { type, operators } = parameter;
      const isPlain = operators.length === 1 && operators[0] === 'eq';
      if (isPlain) return printType(type);
      const last = operators.at(-1) ?? 'eq';
      return `${printType(type)}; ${operators.join(' ')}, as ${filterText(parameter, last)}`;
    }
  }
}

const MOST_NAMED = 16;

/** All that are allowed, or how many where they are too many to read. */
const named = (names: readonly string[], what: string): string =>
  names.length > MOST_NAMED ? `${names.length} ${what}` : names.join(', ');

/** A filter as it is written with an operator, before it is encoded. */
function filterText(filter: FilterParameter, operator: FilterOperator): string {
  const { name, before } = filterTerm(filter, operator);
  return `${name}=${before}…`;
}

const notedBy = (kind: 'member' | 'parameter', subject: string | null): InOutRow['noted'] =>
  subject === null ? null : { kind, subject };

function bodyRows(accepted: readonly Member[], returned: readonly Member[]): InOutRow[] {
  const byName = new Map<string, InOutRow>();
  for (const member of accepted) {
    if (member.mode === 'ignored') continue;
    const how: In = member.mode === 'must-equal' ? 'no' : member.required ? 'must' : 'may';
    byName.set(member.name, {
      name: member.name,
      place: 'body',
      type: memberTypeText(member),
      in: how,
      out: false,
      noted: notedBy('member', memberSubject(member.source)),
      usual: member.description ?? '',
      reasons: member.reasons,
    });
  }
  for (const member of returned) {
    const known = byName.get(member.name);
    if (known !== undefined) byName.set(member.name, { ...known, out: true });
    else
      byName.set(member.name, {
        name: member.name,
        place: 'body',
        type: memberTypeText(member),
        in: 'no',
        out: true,
        noted: notedBy('member', memberSubject(member.source)),
        usual: member.description ?? '',
        reasons: member.reasons,
      });
  }
  return [...byName.values()];
}

/** What a member may be, in the words of the notation. */
export function memberTypeText({ type, source }: Pick<Member, 'type' | 'source'>): string {
  if (source.kind === 'reference' || source.kind === 'owner') return `key of a ${source.entity}`;
  return typeText(type);
}

function typeText(type: MemberType): string {
  switch (type.kind) {
    case 'json':
      return 'any JSON';
    case 'shape':
      return type.shape;
    case 'list':
      return `list of ${typeText(type.of)}`;
    case 'links':
      return 'a link for each relation';
    case 'page':
      return 'where the page stands';
    default:
      return printType(type);
  }
}
