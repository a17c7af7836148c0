import type { Link, LinkValue, OwnTarget, ReachedValue, Resource } from '../contract/index.js';
import type { AlongStep } from '../arrangement/index.js';
import {
  indexModel,
  memoize,
  percentEncoded,
  scalarText,
  storageOf,
  type Condition,
  type Json,
  type Model,
  type Row,
} from '../model/index.js';
import { pointedAt, type RecordView } from './dataset.js';
import { holdsFor, momentAs } from './lifeCycle.js';
import { fieldValue, isScalarValue } from './list/field.js';
import { canonicalPath, pathWith } from './paths.js';
import { indexOf, storageNamed, type RequestContext } from './service.js';

/** The targets of links of one's own. */
const OWN_KINDS: ReadonlySet<string> = new Set<OwnTarget['kind']>(['operation', 'along', 'address']);

export const isOwnTarget = (target: Link['target']): target is OwnTarget => OWN_KINDS.has(target.kind);

/**
 * Where a link of one's own leads now: `{ href }`, `{ href, templated }`, or `null` where its condition does not hold or
 * something it is made of has no value. `record`: the one that offers it, or the one above a list.
 */
export function ownLink(
  service: RequestContext,
  view: RecordView,
  target: OwnTarget,
  record: Row | null,
): Json {
  if (target.when.length > 0 && (record === null || !holdsFor(service, record, target.when, service.now)))
    return null;
  switch (target.kind) {
    case 'operation':
      return toOperation(service, view, target, record);
    case 'along': {
      const found = record === null ? null : walked(service, view, record, target.along);
      const href = found === null ? null : canonicalPath(service, view, found);
      return href === null ? null : { href };
    }
    case 'address': {
      const href = address(service, view, target.parts, record);
      return href === null ? null : { href };
    }
  }
}

function toOperation(
  service: RequestContext,
  view: RecordView,
  { resource: id, ids, query, open }: Extract<OwnTarget, { kind: 'operation' }>,
  record: Row | null,
): Json {
  const resource = indexOf(service).resources.get(id);
  if (resource === undefined) return null;
  const path = pathWith(service, view, resource, record, (parameter) => {
    if (open.path.includes(parameter)) return `{${parameter}}`;
    const value = Object.hasOwn(ids, parameter) ? ids[parameter] : undefined;
    if (value === undefined) return undefined;
    const text = valueText(service, view, value, record);
    return text === null ? null : encodeURIComponent(text);
  });
  if (path === null) return null;
  const terms: string[] = [];
  for (const { name, before, value } of query) {
    const text = valueText(service, view, value, record);
    if (text === null) return null;
    terms.push(`${encodeURIComponent(name)}=${before}${encodeURIComponent(text)}`);
  }
  const asked = terms.length === 0 ? '' : `?${terms.join('&')}`;
  const left = open.query.length === 0 ? '' : `{${terms.length === 0 ? '?' : '&'}${open.query.join(',')}}`;
  const href = path + asked + left;
  return open.path.length + open.query.length === 0 ? { href } : { href, templated: true };
}

/** A value as a URL has it before it is encoded; `null` where there is none. */
function valueText(
  service: RequestContext,
  view: RecordView,
  value: LinkValue,
  record: Row | null,
): string | null {
  switch (value.kind) {
    case 'literal':
      return value.text;
    case 'now':
      return momentAs(value.type, Math.floor(service.now / 60_000) * 60_000);
    case 'field':
      return record === null ? null : reachedText(service, view, value, record);
  }
}

function reachedText(
  service: RequestContext,
  view: RecordView,
  { along, field }: ReachedValue,
  record: Row,
): string | null {
  const holder = walked(service, view, record, along);
  const value = holder === null ? undefined : fieldValue(service, view, holder, field);
  return isScalarValue(value) ? scalarText(value) : null;
}

/** An address elsewhere; a value that is all of it is followed only where it is of the web. */
function address(
  service: RequestContext,
  view: RecordView,
  parts: Extract<OwnTarget, { kind: 'address' }>['parts'],
  record: Row | null,
): string | null {
  let href = '';
  for (const part of parts) {
    if (typeof part === 'string') {
      href += part;
      continue;
    }
    const text = record === null ? null : reachedText(service, view, part, record);
    if (text === null) return null;
    if (parts.length === 1) return isOfWeb(text) ? text : null;
    href += percentEncoded(text);
  }
  return href;
}

/** No other scheme is linked: `javascript:` is a URI, too. */
const isOfWeb = (text: string): boolean => /^https?:\/\/[^\s"<>\\^`{|}]+$/i.test(text) && URL.canParse(text);

/** The record that roles lead to, one at each step; `null` where there is none. */
function walked(
  service: RequestContext,
  view: RecordView,
  record: Row,
  along: readonly AlongStep[],
): Row | null {
  let at: Row | null = record;
  for (const { relationship, direction } of along) {
    if (at === null) return null;
    const owns = indexModel(service.model).relationshipById.get(relationship);
    at =
      owns?.kind === 'owns' && direction === 'onwards'
        ? (view.pointingAt(storageNamed(service, owns.to), relationship, at.rid)[0] ?? null)
        : pointedAt(view, at, relationship);
  }
  return at;
}

/** How the links of a record can change while it stays as it is. */
interface Movement {
  /** With other records, or from minute to minute. */
  readonly isByOthers: boolean;
  /** With time: something is offered from, or until, some moment. */
  readonly isByTime: boolean;
}

const STILL: Movement = { isByOthers: false, isByTime: false };

/** What moves the links of the records of an entity, by its name. */
export function linksMove(service: RequestContext, entity: string): Movement {
  const resource = indexOf(service).canonical.get(entity);
  return resource === undefined ? STILL : movementOf(resource, service.model);
}

const movementOf = memoize(({ links }: Resource, model: Model): Movement => {
  const targets = links.map(({ target }) => target);
  const own = targets.filter(isOwnTarget);
  return {
    isByOthers: own.some((target) => showsOthers(model, target) || bindsNow(target)),
    isByTime: own.some(bindsNow) || targets.some((target) => comparesTime(model, target)),
  };
});

function showsOthers(model: Model, target: OwnTarget): boolean {
  if (target.kind === 'along')
    return target.along.length > 1 || target.along.some((step) => isDown(model, step));
  const values: readonly (string | LinkValue)[] =
    target.kind === 'address'
      ? target.parts
      : [...Object.values(target.ids), ...target.query.map(({ value }) => value)];
  return values.some(
    (value) => typeof value !== 'string' && value.kind === 'field' && value.along.length > 0,
  );
}

/** Whether a step leads to what is owned: that points at the record, not the record at it. */
const isDown = (model: Model, { relationship, direction }: AlongStep): boolean =>
  direction === 'onwards' && indexModel(model).relationshipById.get(relationship)?.kind === 'owns';

const bindsNow = (target: OwnTarget): boolean =>
  target.kind === 'operation' &&
  [...Object.values(target.ids), ...target.query.map(({ value }) => value)].some(
    ({ kind }) => kind === 'now',
  );

function comparesTime(model: Model, target: Link['target']): boolean {
  if (target.kind === 'custom' || isOwnTarget(target)) return hasNow(target.when);
  if (target.kind !== 'action') return false;
  for (const { attributes } of storageOf(model).byId.values())
    for (const { lifeCycle } of attributes)
      for (const { id, when } of lifeCycle ?? []) if (id === target.transition) return hasNow(when ?? []);
  return false;
}

const hasNow = (when: Condition): boolean =>
  when.some((all) => all.some(({ operand }) => operand.kind === 'now'));
