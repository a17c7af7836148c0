import type { Settings } from '../arrangement/index.js';
import { indexContract, isCarried, type Contract, type Resource } from '../contract/index.js';
import { entryOf, memoize, type Row } from '../model/index.js';
import type { RecordView } from './dataset.js';
import type { Projection } from './list/listQuery.js';
import { representListed, representRecord } from './represent.js';
import { indexOf, storages, type RequestContext } from './service.js';
import { allowedMask, holdsOthers, stateOf } from './validators.js';

interface Kept {
  readonly record: Row;
  /** What the record allowed when the text was made. */
  readonly mask: string;
  readonly text: string;
}

type Purpose = 'item' | 'member';

/** The texts of the records of one view by one contract, by their numbers; all go when they are too much. */
interface Texts {
  readonly item: Map<number, Kept>;
  readonly member: Map<number, Kept>;
  characters: number;
}

/** So much text is kept for a contract. */
const MOST_CHARACTERS = 32 * 1_048_576;

const texts = memoize<RecordView, (contract: Contract) => Texts>(() =>
  memoize(() => ({ item: new Map(), member: new Map(), characters: 0 })),
);

function textsOf(service: RequestContext, view: RecordView): Texts {
  const known = texts(view)(service.contract);
  if (known.characters <= MOST_CHARACTERS) return known;
  known.item.clear();
  known.member.clear();
  known.characters = 0;
  return known;
}

/** Whether records of an entity are shown by themselves alone, so that their texts can be kept. */
function isAlone(service: RequestContext, record: Row, { fields, expand }: Projection): boolean {
  const { links } = service.contract.representation;
  const isPlain = service.mediaType === 'application/json' && links === 'object' && service.origin === '';
  return (
    isPlain &&
    fields === null &&
    expand.size === 0 &&
    !holdsOthers(service, record) &&
    !hasLinkHeader(service, record)
  );
}

/** Whether records of an entity carry the same links in lists as alone, so that one text is enough. */
function isLinkedAlike({ contract }: RequestContext, entity: string): boolean {
  const home = indexContract(contract).canonical.get(entity);
  return home === undefined || linkedAlike(home)(contract.representation.memberLinks);
}

const linkedAlike = memoize(({ links }: Resource) => {
  const known = new Map<string, boolean>();
  return (memberLinks: Settings['memberLinks']): boolean =>
    entryOf(known, memberLinks, () =>
      links.every((link) => isCarried(link, 'items', memberLinks) === isCarried(link, 'lists', memberLinks)),
    );
});

/** Whether links of a record travel in a header besides, which no text tells. */
function hasLinkHeader(service: RequestContext, record: Row): boolean {
  const entity = storages(service).byId.get(record.entity)?.entity.name ?? '';
  const resource = indexOf(service).canonical.get(entity);
  return resource !== undefined && carriesHeader(resource);
}

const carriesHeader = memoize(({ links }: Resource): boolean =>
  links.some(({ in: places }) => places?.includes('header') === true),
);

function textFor(
  service: RequestContext,
  view: RecordView,
  known: Texts,
  record: Row,
  purpose: Purpose,
): Kept {
  const kept = known[purpose];
  const mask = allowedMask(service, record);
  const last = kept.get(record.rid);
  if (last?.record === record && last.mask === mask) return last;
  const body =
    purpose === 'item' ? representRecord(service, view, record) : representListed(service, view, record);
  const made = { record, mask, text: JSON.stringify(body) };
  kept.set(record.rid, made);
  known.characters += made.text.length;
  return made;
}

/**
 * The text of a record in plain JSON with its links inside. A record never changes in place, and neither do the keys
 * it and what it points at are linked by; so the text is made once for each of its revisions, and again when it
 * allows something else. `null` where more than that decides it.
 */
export const recordText = (
  service: RequestContext,
  view: RecordView,
  record: Row,
  showing: Projection,
): string | null =>
  isAlone(service, record, showing)
    ? textFor(service, view, textsOf(service, view), record, 'item').text
    : null;

/** The texts of the records of a list, and what each is made of: see `stateOf` and `allowedMask`. */
export interface ListedTexts {
  readonly texts: readonly string[];
  readonly states: readonly string[];
}

/** The texts of records of one entity as a list shows them; `null` where more than each by itself decides them. */
export function listedTexts(
  service: RequestContext,
  view: RecordView,
  records: readonly Row[],
  showing: Projection,
): ListedTexts | null {
  const [first] = records;
  if (first === undefined || !isAlone(service, first, showing)) return null;
  const known = textsOf(service, view);
  const name = storages(service).byId.get(first.entity)?.entity.name ?? '';
  const isAlike = !indexOf(service).shapes.has(`${name}.member`) && isLinkedAlike(service, name);
  const purpose = isAlike ? 'item' : 'member';
  const made = records.map((record) => textFor(service, view, known, record, purpose));
  return {
    texts: made.map(({ text }) => text),
    states: made.map(({ record, mask }) => `${stateOf(record)}.${mask}`),
  };
}
