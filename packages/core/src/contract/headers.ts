import { hasMoment } from '../arrangement/index.js';
import { cachingHeaders, modifiedHeader } from './cachingHeaders.js';
import { header, type HeaderUse } from './header.js';
import { isAddressed, listFormAt } from './lookup.js';
import { linkHeaders } from './linkHeaders.js';
import { looksThroughList, SEE_OTHER } from './methods.js';
import type { Operation, PageForm, ResponseCase, ResponseCode } from './operation.js';
import type { Contract } from './types.js';

/** Headers that a request of an operation may carry beside those of content negotiation. */
export function requestHeaders(
  { version, versionHeader }: Contract,
  { verb, ifMatch, prefers, idempotency }: Operation,
): readonly HeaderUse[] {
  const isRead = verb === 'entry' || verb === 'list' || verb === 'read';
  return [
    ...(versionHeader === null
      ? []
      : [
          header(versionHeader, 'The version that is meant; the one there is, where it is left out.', {
            type: { options: [version] },
            subject: 'version',
          }),
        ]),
    isRead
      ? header('If-None-Match', 'The ETag of what the client has: 304 while it is the same.')
      : header('If-Match', 'The ETag of the state that the request is made for.', {
          isRequired: ifMatch === 'required',
        }),
    ...(prefers ? [header('Prefer', 'Whether the answer has a body.', { type: 'preference' })] : []),
    ...(idempotency === 'ignored'
      ? []
      : [
          header(
            'Idempotency-Key',
            "A text of the client's own: the request is carried out once, however often it is sent.",
            { isRequired: idempotency === 'required' },
          ),
        ]),
  ];
}

const hasCode = (cases: readonly ResponseCase[], ...codes: readonly ResponseCode[]): boolean =>
  cases.some(({ code }) => codes.includes(code));

const handsOutToken = ({ custom }: Operation): boolean =>
  custom?.kind === 'verify' && custom.answers.kind === 'token';

const TELLS_NO_RECORD: ReadonlySet<string | undefined> = new Set(['fixed', 'aggregate']);

/** Whether what is answered has a state that can be asked for again. */
const hasState = ({ custom, verb }: Operation): boolean => {
  if (verb === 'custom' && custom !== null && looksThroughList(custom)) return false;
  if (custom?.kind === 'verify' || custom?.kind === 'revoke') return false;
  return custom?.kind !== 'fixed' || !hasMoment(custom.body);
};

/** The form of what is listed; `null` where nothing is. */
const formOf = (contract: Contract, { paging, custom, resource }: Operation): PageForm | null =>
  paging === null && custom?.kind === 'query' ? listFormAt(contract, resource) : paging;

/** What an answer of an operation says in its headers; `cases`: all that share its status. */
export function responseHeaders(
  contract: Contract,
  operation: Operation,
  cases: readonly ResponseCase[],
): readonly HeaderUse[] {
  const links = linkingHeaders(contract, operation, cases);
  return [
    ...addressHeaders(contract, operation, cases),
    ...links,
    ...listHeaders(contract, operation, cases),
    ...(operation.prefers && hasCode(cases, 'ok', 'created', 'removed', 'minimal')
      ? [header('Preference-Applied', 'The preference that was honoured (RFC 7240 §3).')]
      : []),
    ...cachingHeaders(contract, operation, cases, hasState(operation)),
    ...(hasCode(cases, 'media-type') ? [acceptedHeader(operation), codingHeader] : []),
    ...(hasCode(cases, 'key-busy') ? [header('Retry-After', 'Seconds to wait (RFC 9110 §10.2.3).')] : []),
    ...(hasCode(cases, 'unauthenticated') || (hasCode(cases, 'unmatched') && cases[0]?.status === 401)
      ? [header('WWW-Authenticate', 'The credentials that are wanted (RFC 9110 §11.6.1).')]
      : []),
    ...endHeaders(
      operation,
      links.some(({ name }) => name === 'Link'),
    ),
  ];
}

/** The header that says what is accepted. */
export const acceptedIn = (verb: Operation['verb']): string =>
  verb === 'change' ? 'Accept-Patch' : 'Accept';

/** What is accepted where what was sent is not (RFC 9110 §12.5.1, RFC 5789 §3.1). */
const acceptedHeader = ({ verb }: Operation): HeaderUse =>
  header(acceptedIn(verb), 'The media types that are accepted.');

const codingHeader = header('Accept-Encoding', 'The content codings that are read (RFC 9110 §12.5.3).');

/** Where the record is, and the state that is answered. */
function addressHeaders(
  contract: Contract,
  operation: Operation,
  cases: readonly ResponseCase[],
): readonly HeaderUse[] {
  const { verb, returns, responses, custom } = operation;
  const isSeeOther = cases.some(({ status }) => status === SEE_OTHER);
  const isElsewhere =
    (hasCode(cases, 'ok', 'not-modified') &&
      responses.some(({ reasons }) => reasons.some(({ rule }) => rule === 'status.elsewhere'))) ||
    ((verb === 'transition' || verb === 'custom') &&
      hasCode(cases, 'ok') &&
      returns !== null &&
      isOfRecord(operation) &&
      custom?.kind !== 'query' &&
      custom?.kind !== 'many' &&
      isAddressed(contract, operation));
  const isTagged =
    hasState(operation) && !isSeeOther && hasCode(cases, 'created', 'minimal', 'ok', 'not-modified');
  return [
    ...(isAddressed(contract, operation) && hasCode(cases, 'created')
      ? [header('Location', 'Where the new record is.', { type: 'uri' })]
      : isSeeOther
        ? [header('Location', 'Where the record is.', { type: 'uri' })]
        : []),
    ...(isElsewhere ? [header('Content-Location', 'The one address of the record.', { type: 'uri' })] : []),
    ...(isTagged
      ? [
          header('ETag', 'The state of what is answered (RFC 9110 §8.8.3).'),
          ...modifiedHeader(contract, operation),
        ]
      : []),
  ];
}

const isOfRecord = (operation: Operation): boolean =>
  !TELLS_NO_RECORD.has(operation.custom?.kind) && !handsOutToken(operation);

function linkingHeaders(
  contract: Contract,
  operation: Operation,
  cases: readonly ResponseCase[],
): readonly HeaderUse[] {
  const { representation } = contract;
  if (!isOfRecord(operation) || operation.returns === null || !hasCode(cases, 'ok', 'created', 'removed'))
    return [];
  const isBare = formOf(contract, operation)?.envelope === 'bare';
  const areAll =
    (representation.links === 'header' || (representation.links === 'object' && isBare)) &&
    representation.mediaTypes.includes('application/json');
  const { link, template } = linkHeaders(contract, operation, areAll);
  return [
    ...(link === null ? [] : [header('Link', link)]),
    ...(template === null ? [] : [header('Link-Template', template)]),
  ];
}

function listHeaders(
  contract: Contract,
  operation: Operation,
  cases: readonly ResponseCase[],
): readonly HeaderUse[] {
  if (!hasCode(cases, 'ok')) return [];
  const { paging, verb } = operation;
  const isBare = formOf(contract, operation)?.envelope === 'bare';
  const isTold = paging?.totals === 'header' || (paging?.totals === 'body' && isBare);
  const more = 'Whether there are more than these: ?1 or ?0 (RFC 9651 §3.3.6).';
  return [
    ...(isTold && verb === 'list'
      ? [header(contract.totalHeader, 'How many records there are.', { type: 'count', subject: 'total' })]
      : []),
    ...(isBare && paging !== null && paging.ceiling !== null
      ? [header(contract.moreHeader, more, { subject: 'more' })]
      : []),
  ];
}

/** What every answer of an operation that comes to its end says (RFC 9745 §2.1, RFC 8594 §3), and where more is told. */
function endHeaders({ documentation }: Operation, hasLinks: boolean): readonly HeaderUse[] {
  const { deprecated = null, sunset = null } = documentation ?? {};
  if (deprecated === null && sunset === null) return [];
  return [
    ...(deprecated === null
      ? []
      : [header('Deprecation', 'From when it is not to be used any more (RFC 9745).')]),
    ...(sunset === null ? [] : [header('Sunset', 'When it stops answering (RFC 8594).')]),
    ...(hasLinks ? [] : [header('Link', 'Where more is told of its end (RFC 9745 §3, RFC 8594 §6).')]),
  ];
}
