import { executeOnMany } from './actOnMany.js';
import type { Draft } from './draft.js';
import type { WriteOutcome, WriteRequest } from './outcome.js';
import type { RequestContext, Runtime } from './service.js';
import { executeRevoke, executeVerify } from './verify.js';

/** What an operation of one's own does where its path leads to no record. */
export function actOnCollection(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  request: WriteRequest,
): WriteOutcome {
  const { custom, id } = request.operation;
  switch (custom?.kind) {
    case 'many':
      return executeOnMany(service, draft, runtime, request, custom);
    case 'verify':
      return executeVerify(service, draft, runtime, request, custom);
    case 'revoke':
      return executeRevoke(request);
    case 'query':
    case 'find':
    case 'assign':
    case 'create':
    case 'caller':
    case 'aggregate':
    case 'fixed':
    case undefined:
      throw new Error(`${id} does nothing to a collection.`);
  }
}
