import type { Contract } from '../contract/index.js';
import type { Row } from '../model/index.js';
import type { RecordView } from './dataset.js';
import type { Showing } from './list/query.js';
import { representListed, representRecord } from './represent.js';
import { indexOf, storages, type Serving } from './service.js';
import { allowedMask, holdsOthers } from './validators.js';

interface Kept {
  /** What the record allowed when the text was made. */
  readonly mask: string;
  readonly text: string;
}

/** The texts of one contract. What is kept of a record goes with the record, and all of it when it is too much. */
interface Texts {
  readonly item: WeakMap<Row, Kept>;
  readonly member: WeakMap<Row, Kept>;
  characters: number;
}

/** So much text is kept for a contract. */
const MOST_CHARACTERS = 32 * 1_048_576;

const texts = new WeakMap<Contract, Texts>();

const noTexts = (): Texts => ({ item: new WeakMap(), member: new WeakMap(), characters: 0 });

/**
 * The text of a record in plain JSON with its links inside, as an item or as a member of a list. A record never
 * changes in place, and neither do the keys it and what it points at are linked by; so the text is made once for
 * each of its revisions, and again when it allows something else. `null` where more than that decides it.
 */
export function recordText(
  service: Serving,
  view: RecordView,
  record: Row,
  purpose: 'item' | 'member',
  { fields, expand }: Showing,
): string | null {
  const { representation } = service.contract;
  const isPlain =
    service.mediaType === 'application/json' && representation.links === 'object' && service.origin === '';
  if (!isPlain || fields !== null || expand.size > 0 || holdsOthers(service, record)) return null;
  const name = storages(service).byId.get(record.entity)?.entity.name ?? '';
  const isItem = purpose === 'item' || !indexOf(service).shapes.has(`${name}.member`);
  let known = texts.get(service.contract);
  if (known === undefined || known.characters > MOST_CHARACTERS) {
    known = noTexts();
    texts.set(service.contract, known);
  }
  const kept = isItem ? known.item : known.member;
  const mask = allowedMask(service, record);
  const last = kept.get(record);
  if (last?.mask === mask) return last.text;
  const body = isItem ? representRecord(service, view, record) : representListed(service, view, record);
  const text = JSON.stringify(body);
  kept.set(record, { mask, text });
  known.characters += text.length;
  return text;
}
