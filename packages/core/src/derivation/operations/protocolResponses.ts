import type { ResponseCode, RuleId } from '../../contract/index.js';
import { hasMoment, type SettingName } from '../../arrangement/index.js';
import { valueOf, type DerivationContext } from '../context.js';
import { changesNoRecord } from './protocol.js';
import type { PlacedResource } from '../place/index.js';
import type { Situation } from './situation.js';

/** Adds an answer to those of an operation. */
export type Add = (
  status: number,
  code: ResponseCode,
  rule: RuleId,
  when: () => string,
  settings?: readonly SettingName[],
) => void;

/** What the headers of a request, and its path, can come to in whatever operation. */
export function addProtocol(context: DerivationContext, situation: Situation, noun: string, add: Add): void {
  if (situation.protocol.prefers && situation.verb !== 'create' && situation.own?.custom.kind !== 'create')
    add(204, 'minimal', 'status.minimal', () => 'The same, where Prefer asks for no body.', ['prefer']);
  if (valueOf(context, 'versionIn') === 'header')
    add(400, 'version', 'name.version', () => 'API-Version asks for another version.', [
      'versionIn',
      'version',
    ]);
  addConditions(situation, noun, add);
  addIdempotency(situation, add);
  addAccess(situation, noun, add);
  if (valueOf(context, 'wrongId') === 400 && hasTypedId(situation.resource))
    add(400, 'bad-id', 'status.wrong-id', () => 'An id in the path cannot be one by its type.', ['wrongId']);
}

/** Preconditions, in whatever operation they stand. */
function addConditions({ verb, protocol, own, fixed }: Situation, noun: string, add: Add): void {
  // There is no state: what was asked for is never told again without being asked for, and nothing is changed.
  if (changesNoRecord(verb, own)) return;
  if (fixed !== null && hasMoment(fixed.custom.body)) return;
  if (verb === 'entry' || verb === 'list' || verb === 'read')
    add(
      304,
      'not-modified',
      'status.not-modified',
      () => 'The client has it already, by If-None-Match or If-Modified-Since.',
    );
  add(
    412,
    'precondition',
    'status.precondition',
    () => 'If-Match, If-None-Match or If-Unmodified-Since asks for another state than there is.',
  );
  if (protocol.ifMatch === 'required')
    add(
      428,
      'precondition-missing',
      'status.precondition-missing',
      () => `If-Match must name the state of the ${noun}, and is not there.`,
      ['ifMatch'],
    );
}

function addIdempotency({ protocol: { idempotency } }: Situation, add: Add): void {
  if (idempotency === 'ignored') return;
  if (idempotency === 'required')
    add(
      400,
      'key-missing',
      'status.key-missing',
      () => 'Idempotency-Key is not there, or is no text in quotes.',
      ['idempotency'],
    );
  add(
    409,
    'key-busy',
    'status.key-busy',
    () => 'An earlier request with this Idempotency-Key is still being carried out.',
    ['idempotency'],
  );
  add(422, 'key-reused', 'status.key-reused', () => 'This Idempotency-Key was used for another request.', [
    'idempotency',
  ]);
}

function addAccess({ access, own }: Situation, noun: string, add: Add): void {
  if (access.kind === 'anonymous') return;
  add(
    401,
    'unauthenticated',
    'security.authenticated',
    () => 'Credentials are not there or not valid; WWW-Authenticate says which are wanted.',
    ['security'],
  );
  if (access.kind === 'role')
    add(403, 'forbidden', 'security.role', () => `The client does not have the role ${access.role}.`, [
      'access',
      'role',
    ]);
  else if (own?.custom.kind === 'caller')
    add(403, 'forbidden', 'operation.caller', () => `The caller is no ${noun}.`);
  else if (own?.custom.kind === 'revoke')
    add(
      403,
      'forbidden',
      'operation.revoke',
      () => 'The credentials of the caller are no token, and never end.',
    );
}

/** Whether some id of a path has a form that not every text has. */
const hasTypedId = ({ segments }: PlacedResource): boolean =>
  segments.some((segment) => segment.kind === 'id' && segment.type.kind !== 'text');
