import { admits, type Access } from '../../contract/index.js';
import { ENTRY } from '../align.js';
import { breaking, compatible, type About } from '../change.js';
import type { Aligned, ContractChange } from '../types.js';

/** What is asked of who sends a request: credentials, a state, a key, a size. */
export function* compareDemands({ before, after, pairs }: Aligned): Generator<ContractChange> {
  for (const pair of pairs) {
    const about: About = { where: pair.where, resource: pair.after.resource, reasons: pair.after.reasons };
    if (!admits(pair.before.access, pair.after.access))
      yield breaking('sender', about, `${pair.where} is for ${forWhom(pair.after.access)}.`);
    else if (!admits(pair.after.access, pair.before.access))
      yield compatible(about, `${pair.where} is for ${forWhom(pair.after.access)}.`);
    if (pair.before.ifMatch !== 'required' && pair.after.ifMatch === 'required')
      yield breaking('sender', about, `${pair.where} needs If-Match.`);
    if (pair.before.idempotency !== 'required' && pair.after.idempotency === 'required')
      yield breaking('sender', about, `${pair.where} needs Idempotency-Key.`);
  }
  const about: About = { where: 'everything', resource: ENTRY, reasons: [] };
  const [was, is] = [before.contract, after.contract];
  const isAsked = was.operations.some(({ access }) => access.kind !== 'anonymous');
  const lost = was.security.schemes.filter((scheme) => !is.security.schemes.includes(scheme));
  if (isAsked && lost.length > 0)
    yield breaking('sender', about, `Credentials by ${lost.join(', ')} are not taken.`);
  if (isAsked && was.security.schemes.includes('key') && was.security.keyHeader !== is.security.keyHeader)
    yield breaking('sender', about, `The key is sent in ${is.security.keyHeader}.`);
  if (is.limits.bodyBytes < was.limits.bodyBytes)
    yield breaking('sender', about, `A body has at most ${is.limits.bodyBytes} bytes.`);
  if (was.trailingSlash !== 'missing' && is.trailingSlash === 'missing')
    yield breaking('sender', about, 'A path with a slash at its end is not found.');
  if (was.versionHeader !== null && was.versionHeader !== is.versionHeader)
    yield breaking('sender', about, `The version is not named in ${was.versionHeader} any more.`);
}

function forWhom(access: Access): string {
  switch (access.kind) {
    case 'anonymous':
      return 'everybody';
    case 'authenticated':
      return 'those with credentials';
    case 'role':
      return `the role ${access.role}`;
  }
}
