import type { Contract, PageForm, RecordEnvelope } from '../../contract/index.js';
import { sameJson, type Json } from '../../model/index.js';
import { ENTRY } from '../align.js';
import { breaking, compatible, type About } from '../change.js';
import type { Aligned, ContractChange, Pair } from '../types.js';

/** The forms that answers have as a whole: media types, links, pages. */
export function* compareRepresentations({ before, after, pairs }: Aligned): Generator<ContractChange> {
  const about: About = { where: 'everything', resource: ENTRY, reasons: [] };
  const [was, is] = [before.contract, after.contract];
  const [types, typesNow] = [was.representation.mediaTypes, is.representation.mediaTypes];
  const lost = types.filter((type) => !typesNow.includes(type));
  if (lost.length > 0) yield breaking('reader', about, `${lost.join(', ')} is not answered any more.`);
  else if (types[0] !== typesNow[0])
    yield breaking('reader', about, `Where nobody asks, answers are ${typesNow[0] ?? ''}.`);
  const come = typesNow.filter((type) => !types.includes(type));
  if (come.length > 0) yield compatible(about, `${come.join(', ')} is answered.`);
  const { links, linkForm } = is.representation;
  if (was.representation.links !== links && was.representation.links === 'header')
    yield breaking('follower', about, 'Links are not sent in Link any more.');
  if (was.representation.linkForm !== linkForm && was.representation.links !== 'none')
    yield breaking('follower', about, `Links are ${linkForm === 'path' ? 'paths' : 'absolute URIs'} now.`);
  const [says, saysNow] = [was.representation.linkMethods, is.representation.linkMethods];
  if (says === 'method' && saysNow === 'none')
    yield breaking('follower', about, 'Links do not say their method any more.');
  else if (says !== saysNow) yield compatible(about, 'Links that are no GET say their method.');
  const { memberLinks } = is.representation;
  const [carried, carriedNow] = [CARRIED[was.representation.memberLinks], CARRIED[memberLinks]];
  if (carriedNow.rank < carried.rank)
    yield breaking('follower', about, `Records in lists carry ${carriedNow.said} now.`);
  else if (carriedNow.rank > carried.rank)
    yield compatible(about, `Records in lists carry ${carriedNow.said}.`);
  const relationBase = is.representation.relationBase;
  const isNamed = links === 'header' || typesNow.includes('application/hal+json');
  if (was.representation.relationBase !== relationBase && isNamed)
    yield breaking(
      'follower',
      about,
      `Link relations begin with ${relationBase === '' ? 'the address of the API' : relationBase} now.`,
    );
  const [one, oneNow] = [was.representation.record, is.representation.record];
  if (!sameJson(one as Json, oneNow as Json)) yield* envelopeChanges(about, one, oneNow);
  for (const message of formChanges(was.paging, is.paging)) yield breaking('reader', about, message);
  yield* compareForms(pairs, was.paging, is.paging);
  if (tellsInHeader(was) && tellsInHeader(is) && was.totalHeader !== is.totalHeader)
    yield breaking('reader', about, `Totals are told in ${is.totalHeader}, not in ${was.totalHeader}.`);
  if (tellsMore(was) && tellsMore(is) && was.moreHeader !== is.moreHeader)
    yield breaking(
      'reader',
      about,
      `Whether there are more is told in ${is.moreHeader}, not in ${was.moreHeader}.`,
    );
  for (const name of Object.keys(was.names) as (keyof typeof was.names)[]) {
    if (was.names[name] !== is.names[name])
      yield breaking('reader', about, `${was.names[name]} of answers is called ${is.names[name]} now.`);
  }
}

const SENT: Readonly<Record<'bare' | RecordEnvelope['of'], string>> = {
  bare: 'as the body',
  answers: 'as the body',
  bodies: 'in a member of the body',
};

/** One record stands elsewhere in answers, or in what is sent. */
function* envelopeChanges(
  about: About,
  was: RecordEnvelope | null,
  is: RecordEnvelope | null,
): Generator<ContractChange> {
  const said = (one: RecordEnvelope | null): string => (one === null ? 'the body' : `in ${one.member}`);
  const isMoved = was?.member !== is?.member;
  const isLinkedElsewhere = !isMoved && was?.links !== is?.links;
  const isLost = was?.constants.some(
    ({ name, value }) => !is?.constants.some((other) => other.name === name && other.value === value),
  );
  if (isMoved) yield breaking('reader', about, `One record is ${said(is)} now, not ${said(was)}.`);
  if (isLinkedElsewhere)
    yield breaking('reader', about, `Links of one record are ${is?.links ?? ''} it now.`);
  if (!isMoved && isLost === true)
    yield breaking('reader', about, 'What stands beside one record is another now.');
  const [sent, sentNow] = [SENT[was?.of ?? 'bare'], SENT[is?.of ?? 'bare']];
  if (sent !== sentNow || (was?.of === 'bodies' && is?.of === 'bodies' && was.member !== is.member))
    yield breaking('sender', about, `One record is sent ${sentNow} now.`);
  else if (!isMoved && !isLinkedElsewhere && isLost !== true)
    yield compatible(about, 'More stands beside one record.');
}

/** Lists whose form changed otherwise than that of all. */
function* compareForms(pairs: readonly Pair[], was: PageForm, is: PageForm): Generator<ContractChange> {
  const ofAll = formChanges(was, is);
  for (const { before, after, where } of pairs) {
    if (before.paging === null || after.paging === null) continue;
    const about: About = { where, resource: after.resource, reasons: after.reasons };
    for (const message of formChanges(before.paging, after.paging))
      if (!ofAll.includes(message)) yield breaking('reader', about, `${where}: ${message}`);
  }
}

/** What readers of a list would miss. */
const formChanges = (was: PageForm, is: PageForm): readonly string[] => [
  ...(was.envelope === is.envelope
    ? []
    : [`Lists are ${is.envelope === 'bare' ? 'bare arrays' : 'objects'} now.`]),
  ...(was.style === is.style
    ? was.totals === is.totals || was.totals === 'none'
      ? []
      : [`Totals are ${TOTALS[is.totals]}.`]
    : [`Pages are told by ${is.style}, not by ${was.style}.`]),
  ...(was.ceiling !== null && is.ceiling !== null && is.ceiling < was.ceiling
    ? [`At most ${is.ceiling} are answered, not ${was.ceiling}.`]
    : []),
];

const tellsInHeader = ({ operations }: Contract): boolean =>
  operations.some(
    ({ paging }) => paging?.totals === 'header' || (paging?.totals === 'body' && paging.envelope === 'bare'),
  );

const tellsMore = ({ operations }: Contract): boolean =>
  operations.some(({ paging }) => paging?.envelope === 'bare' && paging.ceiling !== null);

/** Links of listed records, the most last. */
const CARRIED = {
  none: { rank: 0, said: 'no links' },
  self: { rank: 1, said: 'no link but self' },
  all: { rank: 2, said: 'all their links' },
};

const TOTALS = { body: 'in the body now', header: 'in a header now', none: 'not counted any more' };
