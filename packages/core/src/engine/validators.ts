import { base64urlnopad, utf8 } from '@scure/base';
import {
  modifiedMember,
  type LinkTarget,
  type MediaType,
  type OwnTarget,
  type Resource,
  type Shape,
} from '../contract/index.js';
import { isJsonObject, memoize, readJson, type Json, type Row } from '../model/index.js';
import { httpDate } from './conditions.js';
import type { RecordView } from './dataset.js';
import { contractDigest, contractMark, digestOf } from './digest.js';
import { renderBody, type RenderedBody } from './form.js';
import type { Location } from './locate.js';
import { allows, holdsFor, transitionOf } from './lifeCycle.js';
import type { ExpandTree } from './list/expand.js';
import type { Projection } from './list/listQuery.js';
import type { Header } from './message.js';
import { isOwnTarget, linksMove } from './ownLinks.js';
import { representPaired } from './pairing.js';
import { representRecord } from './represent.js';
import { asMediaType, indexOf, storages, type RequestContext } from './service.js';

/** A record as a resource shows it, alone or as one of a pair. */
export interface Rendering {
  readonly resource: Resource;
  readonly record: Row;
  readonly above: Row | null;
  readonly pair: Row | null;
}

/** The record that a resource shows here, or acts on; `null` for lists, the entry, and an empty slot. */
export function renderingAt(resource: Resource, { record, above, pair }: Location): Rendering | null {
  const { kind } = resource;
  if (record === null || kind === 'collection' || kind === 'reverse' || kind === 'pairing') return null;
  if (kind === 'pair' && pair === null) return null;
  return { resource, record, above, pair: kind === 'pair' ? pair : null };
}

/** The body of a record, and its text as it travels. */
function renderRepresentation(
  service: RequestContext,
  view: RecordView,
  shown: Rendering,
  showing: Projection,
): string {
  const { resource, record, above, pair } = shown;
  const body =
    pair !== null && above !== null
      ? representPaired(service, view, resource, above, record, showing)
      : representRecord(service, view, record, showing);
  return textAndLinks(renderBody(service, 'record', body));
}

/** All that an answer shows: its body, and where its headers lead. */
export const textAndLinks = ({ headers, text }: RenderedBody): string =>
  headers.reduce((all, [name, value]) => (name.startsWith('Link') ? `${all}\n${value}` : all), text ?? '');

/** The tag of a list or the entry, by what differs where they do: whatever is in it, in whatever order. */
export const contentTag = ({ digest = digestOf }: RequestContext, state: string): string =>
  `"${digest(state)}"`;

/** What differs where a list of records does: what is around them, and what their own tags are made of. */
export const listState = (service: RequestContext, around: string, states: readonly string[]): string =>
  `${contractDigest(service.contract)}${states.join()}${around}`;

/**
 * The strong tag (RFC 9110 §8.8.1) of a representation: the numbers of its records with their revisions, which
 * are never used again, and what is allowed now; then the contract, the media type, and what was asked for.
 */
export function recordTag(
  service: RequestContext,
  view: RecordView,
  shown: Rendering,
  showing: Projection,
  rendered: RenderedBody | null = null,
): string {
  const form = service.mediaType === 'application/json' ? 'j' : 'h';
  const state =
    shown.pair === null ? stateOf(shown.record) : `${stateOf(shown.record)}_${stateOf(shown.pair)}`;
  const tag = `${state}.${allowedMask(service, shown.record)}${form}${contractMark(service.contract)}`;
  const isAlone = showing.expand.size === 0 && !holdsOthers(service, shown.record);
  if (showing.fields === null && isAlone) return `"${tag}"`;
  const inside = isAlone
    ? ''
    : digestOf(
        rendered === null ? renderRepresentation(service, view, shown, showing) : textAndLinks(rendered),
      );
  return `"${tag}.${encodeShowing(showing)}.${inside}"`;
}

/** Differs from one state of a record to the next, and never comes again. */
export const stateOf = ({ rid, revision }: Row): string => `${rid.toString(36)}-${revision.toString(36)}`;

/** Whether records of a shape are shown with others inside them, whatever is asked for. */
const holdsInside = memoize(({ members }: Shape): boolean =>
  members.some(
    ({ source }) =>
      source.kind === 'inline' || (source.kind === 'expanded' && source.isAlways) || isReadElsewhere(source),
  ),
);

const isReadElsewhere = (source: Shape['members'][number]['source']): boolean =>
  source.kind === 'computed' && source.reads === 'others';

/** Whether a record is shown with others inside it, or with what comes from them, whatever is asked for. */
export function holdsOthers(service: RequestContext, record: Row): boolean {
  const entity = storages(service).byId.get(record.entity)?.entity.name ?? '';
  const shape = indexOf(service).shapes.get(entity);
  return shape !== undefined && (holdsInside(shape) || linksMove(service, entity).isByOthers);
}

const TAG = /^"[^."]*\.[0-9a-f]*([jh])[^."]*(?:\.([A-Za-z0-9_-]+)\.[^."]*)?"$/;

const TYPES: Readonly<Record<string, MediaType>> = { j: 'application/json', h: 'application/hal+json' };

/** Whether a tag is that of some representation of the record as it is now. */
export function hasTag(service: RequestContext, view: RecordView, shown: Rendering, tag: string): boolean {
  const [, form = '', asked] = TAG.exec(tag) ?? [];
  const mediaType = TYPES[form];
  const showing = asked === undefined ? { fields: null, expand: new Map() } : decodeShowing(asked);
  if (mediaType === undefined || showing === null) return false;
  return recordTag(asMediaType(service, mediaType), view, shown, showing) === tag;
}

/** Which transitions and operations of one's own the record allows now, in hexadecimal: they are offered as links. */
export function allowedMask(service: RequestContext, record: Row): string {
  const entity = storages(service).byId.get(record.entity)?.entity.name ?? '';
  const resource = indexOf(service).canonical.get(entity);
  const deeds = resource === undefined ? [] : deedsOf(resource);
  if (deeds.length === 0) return '0';
  let mask = 0n;
  for (const deed of deeds) mask = mask * 2n + (isAllowed(service, record, deed) ? 1n : 0n);
  return mask.toString(16);
}

type Deed = Extract<LinkTarget, { kind: 'action' | 'custom' }> | OwnTarget;

/** What a resource links only while it is allowed. */
const deedsOf = memoize(({ links }: Resource): readonly Deed[] =>
  links.flatMap(({ target }): readonly Deed[] => {
    if (isOwnTarget(target)) return target.when.length === 0 ? [] : [target];
    return target.kind === 'action' || target.kind === 'custom' ? [target] : [];
  }),
);

function isAllowed(service: RequestContext, record: Row, target: Deed): boolean {
  if (target.kind !== 'action') return holdsFor(service, record, target.when, service.now);
  const found = transitionOf(service, record, target.transition);
  return found !== null && allows(found, record, service.now);
}

function encodeShowing({ fields, expand }: Projection): string {
  const asked = JSON.stringify([fields === null ? null : [...fields], treeJson(expand)]);
  return base64urlnopad.encode(utf8.decode(asked));
}

const treeJson = (tree: ExpandTree): Json =>
  Object.fromEntries([...tree].map(([name, below]) => [name, treeJson(below)]));

/** The steps that a tag may ask for; no arrangement allows more. */
const DEEPEST = 3;

function decodeShowing(text: string): Projection | null {
  const [fields, expand] = decodedJson(text);
  const tree = treeOf(expand, DEEPEST);
  if (tree === null) return null;
  const names = Array.isArray(fields) ? (fields as readonly Json[]) : null;
  return { fields: names === null ? null : new Set(names.map(String)), expand: tree };
}

function decodedJson(text: string): readonly Json[] {
  try {
    const read = readJson(utf8.encode(base64urlnopad.decode(text)));
    return read.ok && Array.isArray(read.value) ? (read.value as readonly Json[]) : [];
  } catch {
    // Not base64url: no tag of ours.
    return [];
  }
}

function treeOf(json: Json | undefined, depth: number): ExpandTree | null {
  if (!isJsonObject(json) || depth < 0) return null;
  const tree = new Map<string, ExpandTree>();
  for (const [name, below] of Object.entries(json)) {
    const inner = treeOf(below, depth - 1);
    if (inner === null) return null;
    tree.set(name, inner);
  }
  return tree;
}

/** When a record was changed last, where its representation tells that in a touched instant, to the second. */
export function modifiedAt(service: RequestContext, record: Row): number | null {
  const storage = storages(service).byId.get(record.entity);
  const shape = indexOf(service).shapes.get(storage?.entity.name ?? '');
  const told = shape === undefined ? null : modifiedMember(shape);
  if (told?.source.kind !== 'attribute') return null;
  const { isByOthers, isByTime } = linksMove(service, storage?.entity.name ?? '');
  if (isByOthers || isByTime) return null;
  const at = record.values[told.source.attribute];
  const time = typeof at === 'string' ? Date.parse(at) : NaN;
  return Number.isNaN(time) ? null : Math.floor(time / 1000) * 1000;
}

/** ETag and, where it is known, Last-Modified. */
export function validatorHeaders(service: RequestContext, shown: Rendering | null, tag: string): Header[] {
  const modified = shown === null ? null : modifiedAt(service, shown.record);
  return modified === null
    ? [['ETag', tag]]
    : [
        ['ETag', tag],
        ['Last-Modified', httpDate(modified)],
      ];
}
