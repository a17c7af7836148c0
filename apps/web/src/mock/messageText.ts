import type { Contract, Operation } from '@isomeros/core/contract';
import { credentialHeader, nearMisses, readTarget, routerOf } from '@isomeros/core/engine';

/** What a message will be handled by, as far as its request line tells. */
export type MatchPrediction =
  | { readonly kind: 'operation'; readonly operation: Operation }
  | { readonly kind: 'none'; readonly why: string };

export function predictMatch(contract: Contract, message: string): MatchPrediction {
  const [line = ''] = message.split('\n', 1);
  const [method = '', target = ''] = line.trim().split(/\s+/);
  if (target === '') return { kind: 'none', why: 'A message begins with a method and a target.' };
  const read = readTarget(target);
  if (!read.ok) return { kind: 'none', why: read.problem.detail };
  const route = routerOf(contract).match(read.target.segments);
  if (route === null) {
    const [nearest] = nearMisses(contract, { method, target });
    const hint = nearest === undefined ? '' : ` Nearest is ${nearest.address}.`;
    return { kind: 'none', why: `No path of the contract matches: 404.${hint}` };
  }
  const operation = route.operations.get(method === 'HEAD' ? 'GET' : method);
  if (operation !== undefined) return { kind: 'operation', operation };
  if (method === 'OPTIONS') return { kind: 'none', why: 'OPTIONS tells what the resource can do: 204.' };
  return { kind: 'none', why: `The path takes ${[...route.operations.keys()].join(', ')}: 405.` };
}

/** A message that reads what is at a target, with credentials where they are asked for. */
export function readingMessage(contract: Contract, target: string): string {
  const line = `GET ${target} HTTP/1.1`;
  const foresight = predictMatch(contract, line);
  const credentials =
    foresight.kind === 'operation' ? credentialHeader(contract, foresight.operation.access) : null;
  const sent = credentials === null ? [] : [`${credentials[0]}: ${credentials[1]}`];
  return `${[line, 'Accept: application/json', ...sent].join('\n')}\n\n`;
}

export const firstMessage = (contract: Contract): string =>
  readingMessage(
    contract,
    `${contract.root}${contract.resources.find(({ kind }) => kind === 'collection')?.path ?? ''}`,
  );
