import type { Operation, ResponseCode } from '../../contract/index.js';
import { breaking, type About } from '../change.js';
import type { Aligned, ContractChange } from '../types.js';

/** The statuses that the same outcomes have. */
export function* compareStatuses({ pairs }: Aligned): Generator<ContractChange> {
  for (const { before, after, where } of pairs) {
    const now = new Map(after.responses.map((response) => [response.code, response]));
    for (const [code, status] of statusesOf(before)) {
      const is = now.get(code);
      if (is === undefined || is.status === status) continue;
      const about: About = { where, resource: after.resource, reasons: is.reasons };
      yield breaking('reader', about, `${where} answers ${is.status} where it answered ${status}.`);
    }
    const [was, is] = [successOf(before), successOf(after)];
    const told = statusesOf(after).get(was?.code ?? 'ok') !== undefined;
    if (was === undefined || is === undefined || told || was.status === is.status) continue;
    const about: About = { where, resource: after.resource, reasons: is.reasons };
    yield breaking('reader', about, `${where} answers ${is.status} where it answered ${was.status}.`);
  }
}

const statusesOf = ({ responses }: Operation): ReadonlyMap<ResponseCode, number> =>
  new Map(responses.map(({ code, status }) => [code, status]));

const successOf = ({ responses }: Operation): Operation['responses'][number] | undefined =>
  responses.find(({ status }) => status < 300);
