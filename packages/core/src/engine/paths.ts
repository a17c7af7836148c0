import { isReadable, type Resource } from '../contract/index.js';
import { scalarText, type Row } from '../model/index.js';
import { pointedAt, type RecordView } from './dataset.js';
import type { Location } from './locate.js';
import type { Header } from './message.js';
import { indexOf, storages, type RequestContext } from './service.js';

/**
 * The path of a resource for a record, or a record below which it lies; `null` when an owner is missing.
 * The last id of a pair is that of the record it is paired with.
 */
export function pathTo(
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  record: Row | null,
  paired: Row | null = null,
): string | null {
  let path = service.contract.root;
  for (const [index, segment] of resource.segments.entries()) {
    if (segment.kind === 'literal') {
      path += `/${segment.text}`;
      continue;
    }
    const last = index === resource.segments.length - 1;
    const holder = last && paired !== null ? paired : ancestor(service, view, record, segment.entity);
    if (holder === null) return null;
    path += `/${keyText(service, holder)}`;
  }
  // The entry of a contract without a root.
  return path === '' ? '/' : path;
}

/**
 * The same with ids that `filled` gives for path parameters: the text of one, `null` where it has no value, `undefined`
 * where it is that of the record, or of its owner.
 */
export function pathWith(
  service: RequestContext,
  view: RecordView,
  { segments }: Resource,
  record: Row | null,
  filled: (parameter: string) => string | null | undefined,
): string | null {
  let path = service.contract.root;
  for (const segment of segments) {
    if (segment.kind === 'literal') {
      path += `/${segment.text}`;
      continue;
    }
    let text = filled(segment.parameter);
    if (text === undefined) {
      const holder = ancestor(service, view, record, segment.entity);
      text = holder === null ? null : keyText(service, holder);
    }
    if (text === null) return null;
    path += `/${text}`;
  }
  return path === '' ? '/' : path;
}

/** The path of an item of a list as a URI template (RFC 6570), for the record that the list stands below. */
export function templateOf(
  service: RequestContext,
  view: RecordView,
  { segments, path }: Resource,
  above: Row | null,
  variables: Readonly<Record<string, string>> | null,
): string | null {
  const { root } = service.contract;
  if (variables === null) return root + path;
  let template = root;
  for (const segment of segments) {
    if (segment.kind === 'literal') {
      template += `/${segment.text}`;
      continue;
    }
    const { parameter, entity } = segment;
    const holder = Object.hasOwn(variables, parameter) ? null : ancestor(service, view, above, entity);
    template += holder === null ? `/{${variables[parameter] ?? parameter}}` : `/${keyText(service, holder)}`;
  }
  return template;
}

/** The key of a record as a path has it. */
const keyText = (service: RequestContext, { entity, values }: Row): string => {
  const key = storages(service).byId.get(entity)?.key;
  return encodeURIComponent(scalarText(values[key?.id ?? '']));
};

/** The record itself or the nearest of its owners that is of the entity. */
function ancestor(service: RequestContext, view: RecordView, record: Row | null, entity: string): Row | null {
  let step = record;
  while (step !== null) {
    const storage = storages(service).byId.get(step.entity);
    if (storage === undefined) return null;
    if (storage.entity.name === entity) return step;
    step = storage.owner === null ? null : pointedAt(view, step, storage.owner.id);
  }
  return null;
}

/** The canonical path of a record, where it can be read there: what `Location` gives. */
export function readablePath(service: RequestContext, view: RecordView, record: Row): string | null {
  const storage = storages(service).byId.get(record.entity);
  const home = storage === undefined ? undefined : indexOf(service).canonical.get(storage.entity.name);
  return home !== undefined && isReadable(indexOf(service), home.id)
    ? pathTo(service, view, home, record)
    : null;
}

/** The canonical path of a record: what `self` gives. */
export function canonicalPath(service: RequestContext, view: RecordView, record: Row): string | null {
  const storage = storages(service).byId.get(record.entity);
  const resource = storage === undefined ? undefined : indexOf(service).canonical.get(storage.entity.name);
  return resource === undefined ? null : pathTo(service, view, resource, record);
}

/** Content-Location (RFC 9110 §8.7), where a path is not the one address of the record that is read there. */
export function contentLocation(
  service: RequestContext,
  view: RecordView,
  { kind, canonical }: Resource,
  { record }: Location,
): Header | null {
  if (record === null || (kind !== 'query' && (canonical || (kind !== 'item' && kind !== 'reference'))))
    return null;
  const path = readablePath(service, view, record);
  return path === null ? null : ['Content-Location', service.origin + path];
}
