import type { Contract } from '../contract/index.js';
import type { EngineRequest } from './message.js';
import { routerOf } from './router.js';
import { readTarget } from './target.js';

/** The id of the operation that a request would be handled by; `null` where there is none. */
export function operationAt(
  contract: Contract,
  { method, target }: Pick<EngineRequest, 'method' | 'target'>,
): string | null {
  const read = readTarget(target);
  const route = read.ok ? routerOf(contract).match(read.target.segments) : null;
  return route?.operations.get(method === 'HEAD' ? 'GET' : method)?.id ?? null;
}
