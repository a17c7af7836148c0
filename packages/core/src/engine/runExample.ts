import { operationKey, type NamedExample } from '../arrangement/index.js';
import {
  indexContract,
  memberSubject,
  wholePath,
  type Contract,
  type Finding,
  type Operation,
} from '../contract/index.js';
import {
  isJsonObject,
  readJson,
  storageOf,
  utf8Length,
  type Json,
  type Model,
  type Row,
} from '../model/index.js';
import { Random } from '../seeding/index.js';
import { credentialHeader } from './access.js';
import { Dataset, type Counters } from './dataset.js';
import { Draft } from './draft.js';
import { handle } from './handle.js';
import { findViolations } from './invariants.js';
import type { EngineRequest, EngineResponse } from './message.js';
import type { Runtime, Service } from './service.js';

/** Others than those of seed records: what is made by these must not be there already. */
const EXAMPLE_DICE = 7;

/** The clock stands still and the dice are known, so that an example is answered the same each time. */
export function exampleRuntime(now: number): Runtime {
  const random = new Random(EXAMPLE_DICE);
  return { now: () => now, random: () => random.next(), token: () => 'an-example' };
}

/** An example as it is sent and answered now, or why it cannot be. */
export type RanExample =
  | {
      readonly ok: true;
      readonly operation: Operation;
      readonly request: EngineRequest;
      readonly response: EngineResponse;
    }
  | { readonly ok: false; readonly why: string };

/** Sends an example to the records it holds, and to no others. */
export function runExample(service: Service, example: NamedExample): RanExample {
  const { contract, model } = service;
  const operation = contract.operations.find(
    ({ resource, verb }) => operationKey(resource, verb) === example.operation,
  );
  if (operation === undefined) return { ok: false, why: 'its operation is not there any more' };
  const [violation] = findViolations(model, example.records);
  if (violation !== undefined)
    return {
      ok: false,
      why: `its records do not fit the model any more: ${violation.entity}: ${violation.message}`,
    };
  const path = pathOf(contract, operation, example);
  if (path === null)
    return { ok: false, why: `${wholePath(contract, operation.resource)} has an id it does not know` };
  const request = requestOf(contract, operation, example, path);
  const dataset = new Dataset(model, example.records, countersOf(model, example.records));
  const { response } = handle(service, new Draft(dataset), request, exampleRuntime(example.now));
  return { ok: true, operation, request, response };
}

/** The path with the ids of an example, each where its entity has its own; `null` where one is not known. */
function pathOf(contract: Contract, { resource }: Operation, { ids }: NamedExample): string | null {
  const { canonical, resources } = indexContract(contract);
  const left = [...ids];
  let path = contract.root;
  for (const segment of resources.get(resource)?.segments ?? []) {
    if (segment.kind === 'literal') {
      path += `/${segment.text}`;
      continue;
    }
    const of = canonical.get(segment.entity)?.id ?? segment.entity;
    const at = left.findIndex((id) => id.of === of);
    const [found] = at < 0 ? [] : left.splice(at, 1);
    if (found === undefined) return null;
    path += `/${encodeURIComponent(found.value)}`;
  }
  return path === '' ? '/' : path;
}

function requestOf(
  contract: Contract,
  operation: Operation,
  example: NamedExample,
  path: string,
): EngineRequest {
  const headers = new Map(Object.entries(example.headers));
  const credentials = credentialHeader(contract, operation.access);
  if (credentials !== null) headers.set(credentials[0].toLowerCase(), credentials[1]);
  if (operation.idempotency === 'required') headers.set('idempotency-key', '"an-example"');
  if (operation.ifMatch === 'required') headers.set('if-match', '*');
  const text = bodyOf(contract, operation, example);
  return {
    method: operation.method,
    target: example.query === '' ? path : `${path}?${example.query}`,
    headers,
    body: text === null ? { kind: 'none' } : { kind: 'text', text, bytes: utf8Length(text) },
  };
}

/** The body with the names that its members have now. */
function bodyOf(contract: Contract, operation: Operation, { body, members }: NamedExample): string | null {
  const read = body === null ? null : readJson(body);
  if (body === null || read?.ok !== true || !isJsonObject(read.value)) return body;
  const nameOf = new Map(
    (indexContract(contract).shapes.get(operation.accepts ?? '')?.members ?? []).flatMap(
      ({ name, source }) => {
        const subject = memberSubject(source);
        return subject === null ? [] : [[subject, name] as const];
      },
    ),
  );
  const renamed = Object.entries(read.value).map(([name, value]): [string, Json] => [
    nameOf.get(Object.hasOwn(members, name) ? (members[name] ?? '') : '') ?? name,
    value,
  ]);
  const isSame = renamed.every(([name], at) => name === Object.keys(read.value as object)[at]);
  return isSame ? body : JSON.stringify(Object.fromEntries(renamed));
}

/** The numbers that records have taken: the next ones follow them. */
function countersOf(model: Model, rows: readonly Row[]): Counters {
  let rid = 0;
  const attributes: Record<string, number> = {};
  for (const row of rows) {
    rid = Math.max(rid, row.rid);
    for (const { id, generated, type } of storageOf(model).byId.get(row.entity)?.attributes ?? []) {
      const value = row.values[id];
      if (generated && type.kind === 'integer' && typeof value === 'number')
        attributes[id] = Math.max(attributes[id] ?? 0, value);
    }
  }
  return { rid, attributes };
}

/** Examples that are answered otherwise than when they were kept, or cannot be sent at all. */
export function exampleFindings(service: Service, examples: readonly NamedExample[]): readonly Finding[] {
  return examples.flatMap((example): readonly Finding[] => {
    const ran = runExample(service, example);
    const why = ran.ok
      ? ran.response.status === example.status
        ? null
        : `it is answered ${ran.response.status} now, and ${example.status} when it was kept${detailOf(ran.response)}`
      : ran.why;
    if (why === null) return [];
    return [
      {
        id: 'example.unfit',
        severity: 'doubtful',
        message: `The example ${example.name} does not fit any more: ${why}.`,
        about: example.id,
        reasons: [{ rule: 'finding.unfit-example', because: [] }],
        quickFixes: [
          ...(ran.ok
            ? [
                {
                  title: `Keep it with ${ran.response.status}`,
                  answer: {
                    kind: 'example',
                    id: example.id,
                    example: { ...example, status: ran.response.status },
                  } as const,
                },
              ]
            : []),
          {
            title: 'Remove the example',
            answer: { kind: 'example', id: example.id, example: null } as const,
          },
        ],
      },
    ];
  });
}

/** What a problem says first. */
function detailOf({ body, status }: EngineResponse): string {
  const read = status >= 400 && body !== null ? readJson(body) : null;
  if (read?.ok !== true || !isJsonObject(read.value)) return '';
  const { detail, errors } = read.value;
  const first = Array.isArray(errors) ? (errors as readonly Json[])[0] : null;
  const told = isJsonObject(first ?? undefined) ? (first as { readonly message?: Json }).message : detail;
  return typeof told === 'string' ? `: ${told.replace(/\.$/, '')}` : '';
}
