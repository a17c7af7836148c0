import type { Contract, Operation } from '@isomeros/core/contract';
import { readTarget, routerOf } from '@isomeros/core/engine';

/** What a message will be handled by, as far as its request line tells. */
export type Foresight =
  | { readonly kind: 'operation'; readonly operation: Operation }
  | { readonly kind: 'none'; readonly why: string };

export function foresee(contract: Contract, message: string): Foresight {
  const [line = ''] = message.split('\n', 1);
  const [method = '', target = ''] = line.trim().split(/\s+/);
  if (target === '') return { kind: 'none', why: 'A message begins with a method and a target.' };
  const read = readTarget(target);
  if (!read.ok) return { kind: 'none', why: read.problem.detail };
  const route = routerOf(contract).match(read.target.segments);
  if (route === null) return { kind: 'none', why: 'No path of the contract matches: 404.' };
  const operation = route.operations.get(method === 'HEAD' ? 'GET' : method);
  if (operation !== undefined) return { kind: 'operation', operation };
  if (method === 'OPTIONS') return { kind: 'none', why: 'OPTIONS tells what the resource can do: 204.' };
  return { kind: 'none', why: `The path takes ${[...route.operations.keys()].join(', ')}: 405.` };
}

export const firstMessage = (contract: Contract): string => {
  const collection = contract.resources.find(({ kind }) => kind === 'collection');
  return `GET ${contract.root}${collection?.path ?? ''} HTTP/1.1\nAccept: application/json\n\n`;
};
