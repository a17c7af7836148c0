import type { Operation, QueryParameter } from '../../contract/index.js';
import { parameterKey } from '../../contract/index.js';
import { memoize } from '../../model/index.js';
import { indexOf, type RequestContext } from '../service.js';

/** The operation that lists a resource. */
export const listAt = (service: RequestContext, resource: string): Operation | undefined =>
  indexOf(service)
    .operationsOf.get(resource)
    ?.find(({ verb }) => verb === 'list');

/** The parameters of an operation by what no other is called. */
export const parametersOf = memoize(
  ({ query }: Operation): ReadonlyMap<string, QueryParameter> =>
    new Map(query.map((parameter) => [parameterKey(parameter), parameter])),
);
