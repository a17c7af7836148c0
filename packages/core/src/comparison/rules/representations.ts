import type { Contract, PageForm } from '../../contract/index.js';
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
    yield breaking('reader', about, 'Links are not sent in Link any more.');
  if (was.representation.linkForm !== linkForm && was.representation.links !== 'none')
    yield breaking('reader', about, `Links are ${linkForm === 'path' ? 'paths' : 'absolute URIs'} now.`);
  const relationBase = is.representation.relationBase;
  const isNamed = links === 'header' || typesNow.includes('application/hal+json');
  if (was.representation.relationBase !== relationBase && isNamed)
    yield breaking(
      'reader',
      about,
      `Link relations begin with ${relationBase === '' ? 'the address of the API' : relationBase} now.`,
    );
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

const TOTALS = { body: 'in the body now', header: 'in a header now', none: 'not counted any more' };
