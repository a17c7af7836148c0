import { listFormAt, type Resource } from '../contract/index.js';
import type { Json, Row } from '../model/index.js';
import type { RecordView } from './dataset.js';
import {
  CONTENT_TYPE,
  listOfTexts,
  renderBody,
  textInEnvelope,
  type BodyKind,
  type RenderedBody,
} from './form.js';
import { answerList, type ListAnswer } from './list/answer.js';
import type { ListQuery } from './list/listQuery.js';
import type { ParsedQuery } from './list/query.js';
import type { Location } from './locate.js';
import { representPaired } from './pairing.js';
import { recordText } from './recordText.js';
import { representEntry, representRecord } from './represent.js';
import type { RequestContext } from './service.js';
import { listState, textAndLinks } from './validators.js';

/** The answer to a safe operation; of a list, also what headers may tell of it. */
export interface ReadAnswer extends Pick<ListAnswer, 'total' | 'isMore'> {
  readonly rendered: RenderedBody;
  /** Differs where the body does, or what headers tell. */
  readonly state: string;
}

/** What a safe operation answers. */
export function executeRead(
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  location: Location,
  { query, entries }: ParsedQuery,
): ReadAnswer {
  const built = (kind: BodyKind, body: Record<string, Json>): ReadAnswer =>
    whole(renderBody(service, kind, body));
  switch (resource.kind) {
    case 'entry':
      return built('entry', representEntry(service, view, resource));
    case 'collection':
    case 'reverse':
    case 'pairing':
    case 'query': {
      if (location.record !== null) return readRecord(service, view, location.record, query);
      const { above } = location;
      const { body, texts, total, isMore } = answerList(service, view, resource, above, query, entries);
      const isBare = listFormAt(service.contract, resource.id).envelope === 'bare';
      const kind = isBare ? 'bare list' : 'list';
      const inHeaders = isBare ? `${total ?? ''} ${isMore ?? ''}` : '';
      const counted = { total, isMore };
      if (texts === null) {
        const rendered = renderBody(service, kind, body);
        return { rendered, state: textAndLinks(rendered) + inHeaders, ...counted };
      }
      const { rendered, around } = listOfTexts(service, body, kind, texts.texts);
      const besides = around + textAndLinks({ ...rendered, text: null }) + inHeaders;
      return { rendered, state: listState(service, besides, texts.states), ...counted };
    }
    case 'item':
    case 'singleton':
    case 'reference':
      if (location.record === null) throw new Error(`${resource.id} was read without a record.`);
      return readRecord(service, view, location.record, query);
    case 'pair':
      if (location.record === null || location.above === null)
        throw new Error(`${resource.id} was read without both sides.`);
      return built(
        'record',
        representPaired(service, view, resource, location.above, location.record, query),
      );
    case 'action':
    case 'collection-action':
    case 'aggregate':
    case 'fixed':
      throw new Error(`${resource.id} is not read.`);
  }
}

/** A record alone, by its text where that was made before. */
function readRecord(service: RequestContext, view: RecordView, record: Row, query: ListQuery): ReadAnswer {
  const own = recordText(service, view, record, query);
  const text = own === null ? null : textInEnvelope(service, own);
  return whole(
    text === null
      ? renderBody(service, 'record', representRecord(service, view, record, query))
      : { headers: [CONTENT_TYPE[service.mediaType]], text },
  );
}

/** An answer that nothing shorter than its text tells apart from others. */
const whole = (rendered: RenderedBody): ReadAnswer => ({
  rendered,
  state: textAndLinks(rendered),
  total: null,
  isMore: null,
});
