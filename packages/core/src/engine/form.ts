import { bareObject, isJsonObject, type Json } from '../model/index.js';
import type { EngineResponse } from './message.js';
import type { Serving } from './service.js';

/** What a body is: its links are its own, those of its items, or the way in. */
export type BodyKind = 'record' | 'list' | 'entry';

export interface RenderedBody {
  readonly headers: EngineResponse['headers'];
  /** `null` where there is no body. */
  readonly text: string | null;
}

/** Link relations with a meaning that everybody knows (IANA); all others are ours, and documented by the mock. */
const REGISTERED: ReadonlySet<string> = new Set([
  'self',
  'up',
  'collection',
  'item',
  'edit',
  'first',
  'prev',
  'next',
  'last',
  'service-desc',
]);

/** Where a relation of our own is documented, under the root of the contract. */
export const relationPath = (root: string, relation: string): string => `${root}/-/relations/${relation}`;

const CURIE = 'rel';

/**
 * Writes a body in the media type that was agreed on. Bodies are built once, with their links in an object from
 * relation to target; only here that becomes a links object, Link headers (RFC 8288), or HAL.
 */
export function renderBody(service: Serving, kind: BodyKind, body: Record<string, Json>): RenderedBody {
  const headers: (readonly [string, string])[] = [['Content-Type', service.mediaType]];
  const shown =
    service.mediaType === 'application/hal+json' ? hal(service, kind, body) : plain(service, kind, body);
  if (shown.inHeaders !== null) headers.push(...linkHeaders(service, shown.inHeaders));
  return { headers, text: JSON.stringify(shown.body) };
}

interface Shown {
  readonly body: Json;
  /** The links that travel in headers. */
  readonly inHeaders: Json;
}

function plain({ contract }: Serving, kind: BodyKind, body: Record<string, Json>): Shown {
  const { names, representation } = contract;
  const { [names.links]: links = null, ...rest } = body;
  const items = body[names.items];
  const isBare = kind === 'list' && representation.envelope === 'bare';
  const told = representation.links === 'none' ? null : links;
  if (representation.links === 'object' && !isBare) return { body, inHeaders: null };
  const bare = (record: Json): Json => withoutLinks(record, names.links);
  const shownItems =
    kind === 'list' && Array.isArray(items) && representation.links !== 'object'
      ? (items as readonly Json[]).map(bare)
      : (items ?? null);
  if (isBare) return { body: shownItems, inHeaders: told };
  const object = Object.assign(bareObject(), rest);
  if (kind === 'list') object[names.items] = shownItems;
  return { body: object, inHeaders: told };
}

function withoutLinks(record: Json, links: string): Json {
  if (!isJsonObject(record)) return record;
  const { [links]: _links, ...rest } = record;
  return Object.assign(bareObject(), rest);
}

/** HAL (draft-kelly-json-hal §4, §8.2): links under `_links`, what a list holds under `_embedded`. */
function hal(service: Serving, kind: BodyKind, body: Record<string, Json>): Shown {
  const { names, root } = service.contract;
  const record = (given: Json, isRoot: boolean): Json => {
    if (!isJsonObject(given)) return given;
    const { [names.links]: links = null, ...rest } = given;
    const curies = isRoot
      ? { curies: [{ name: CURIE, href: relationPath(root, '{rel}'), templated: true }] }
      : {};
    const named = isJsonObject(links) ? Object.entries(links) : [];
    const all = Object.fromEntries(
      named.map(([relation, link]) => [REGISTERED.has(relation) ? relation : `${CURIE}:${relation}`, link]),
    );
    const hasOwn = named.some(([relation]) => !REGISTERED.has(relation));
    return Object.assign(bareObject(), rest, {
      _links: { ...all, ...(hasOwn || kind === 'list' ? curies : {}) },
    });
  };
  if (kind !== 'list') return { body: record(body, true), inHeaders: null };
  const { [names.items]: items = [], ...page } = body;
  const listed = Array.isArray(items) ? (items as readonly Json[]).map((item) => record(item, false)) : [];
  const whole = record(Object.assign(bareObject(), page), true);
  return { body: Object.assign(bareObject(), whole, { _embedded: { item: listed } }), inHeaders: null };
}

/** `Link` (RFC 8288 §3), and `Link-Template` (RFC 9652 §2) for URI templates. */
function linkHeaders({ contract }: Serving, links: Json): readonly (readonly [string, string])[] {
  if (!isJsonObject(links)) return [];
  const texts: Record<'Link' | 'Link-Template', string[]> = { Link: [], 'Link-Template': [] };
  for (const [relation, link] of Object.entries(links)) {
    if (!isJsonObject(link) || typeof link['href'] !== 'string') continue;
    const isTemplate = link['templated'] === true;
    const rel = REGISTERED.has(relation) ? relation : relationPath(contract.root, relation);
    // Link-Template is a structured field (RFC 9651): its targets are strings, not URIs in angle brackets.
    if (isTemplate) texts['Link-Template'].push(`"${link['href']}"; rel="${rel}"`);
    else texts.Link.push(`<${link['href']}>; rel="${rel}"`);
  }
  return Object.entries(texts).flatMap(([name, all]) =>
    all.length === 0 ? [] : [[name, all.join(', ')] as const],
  );
}
