import type { Contract } from '../../contract/index.js';
import { ENTRY } from '../align.js';
import { breaking, compatible, type About } from '../change.js';
import type { Aligned, ContractChange } from '../types.js';

/** The forms that answers have as a whole: media types, links, pages. */
export function* compareRepresentations({ before, after }: Aligned): Generator<ContractChange> {
  const about: About = { where: 'everything', resource: ENTRY, reasons: [] };
  const [was, is] = [before.contract, after.contract];
  const [types, typesNow] = [was.representation.mediaTypes, is.representation.mediaTypes];
  const lost = types.filter((type) => !typesNow.includes(type));
  if (lost.length > 0) yield breaking('reader', about, `${lost.join(', ')} is not answered any more.`);
  else if (types[0] !== typesNow[0])
    yield breaking('reader', about, `Where nobody asks, answers are ${typesNow[0] ?? ''}.`);
  const come = typesNow.filter((type) => !types.includes(type));
  if (come.length > 0) yield compatible(about, `${come.join(', ')} is answered.`);
  const { links, linkForm, envelope } = is.representation;
  if (was.representation.envelope !== envelope)
    yield breaking('reader', about, `Lists are ${envelope === 'bare' ? 'bare arrays' : 'objects'} now.`);
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
  if (was.paging.style !== is.paging.style)
    yield breaking('reader', about, `Pages are told by ${is.paging.style}, not by ${was.paging.style}.`);
  else if (was.paging.totals !== is.paging.totals && was.paging.totals !== 'none')
    yield breaking('reader', about, `Totals are ${TOTALS[is.paging.totals]}.`);
  if (tellsInHeader(was) && tellsInHeader(is) && was.paging.totalHeader !== is.paging.totalHeader)
    yield breaking(
      'reader',
      about,
      `Totals are told in ${is.paging.totalHeader}, not in ${was.paging.totalHeader}.`,
    );
  for (const name of Object.keys(was.names) as (keyof typeof was.names)[]) {
    if (was.names[name] !== is.names[name])
      yield breaking('reader', about, `${was.names[name]} of answers is called ${is.names[name]} now.`);
  }
}

const tellsInHeader = ({ paging, representation }: Contract): boolean =>
  paging.totals === 'header' || (paging.totals === 'body' && representation.envelope === 'bare');

const TOTALS = { body: 'in the body now', header: 'in a header now', none: 'not counted any more' };
