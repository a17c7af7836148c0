import { utf8 } from '@scure/base';
import { LINK_ATTRIBUTE_NAMES } from '../arrangement/index.js';
import {
  appendAll,
  bareObject,
  isJsonObject,
  percentEncoded,
  sameJson,
  scalarText,
  type Json,
  type JsonObject,
} from '../model/index.js';
import type { MediaType, RecordEnvelope } from '../contract/index.js';
import { IN_HEADER, targetsIn } from './links.js';
import type { EngineResponse, Header } from './message.js';
import type { RequestContext } from './service.js';

/** What a body is: one record with its links, an object without any, a list with those of its items, or the way in. */
export type BodyKind = 'record' | 'object' | 'list' | 'bare list' | 'entry';

const isList = (kind: BodyKind): boolean => kind === 'list' || kind === 'bare list';

/** Made once: every exchange that is kept has one. */
export const CONTENT_TYPE: Readonly<Record<MediaType, Header>> = {
  'application/json': ['Content-Type', 'application/json'],
  'application/hal+json': ['Content-Type', 'application/hal+json'],
};

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

/** Where a variable of a URI template is documented: the `var-base` of RFC 9652 §2.3, with its name behind. */
export const variablePath = (root: string, name: string): string => `${root}/-/variables/${name}`;

/** A relation of our own is an absolute URI (RFC 8288 §2.1.2): on the base that was chosen, or at the mock. */
function relationUri({ contract, host }: RequestContext, relation: string): string {
  const { relationBase } = contract.representation;
  if (relationBase !== '') return relationBase + relation;
  return (host ?? 'http://localhost') + relationPath(contract.root, relation);
}

/** Whether a relation has a meaning that everybody knows: as it is derived, or as it was chosen. */
const isRegistered = ({ contract }: RequestContext, relation: string): boolean =>
  REGISTERED.has(relation) || contract.representation.registered.includes(relation);

const CURIE = 'rel';

/**
 * Where a body that is being built holds the records inside it; no member of a model can be called so. From each
 * link relation to `{ name, value }`: the member that plain JSON calls them, and one record or an array of them.
 */
export const EMBEDDED = '_embedded';

/**
 * Writes a body in the media type that was agreed on. Bodies are built once, with their links in an object from
 * relation to target; only here that becomes a links object, Link headers (RFC 8288), or HAL.
 */
export function renderBody(
  service: RequestContext,
  kind: BodyKind,
  body: Record<string, Json>,
): RenderedBody {
  const headers: Header[] = [CONTENT_TYPE[service.mediaType]];
  const { [IN_HEADER]: besides = null, ...others } = IN_HEADER in body ? body : NO_HEADER;
  const given = besides === null ? body : Object.assign(bareObject(), others);
  const shown =
    service.mediaType === 'application/hal+json' ? hal(service, kind, given) : plain(service, kind, given);
  appendAll(headers, linkHeaders(service, joined(service, shown.inHeaders, besides)));
  return { headers, text: JSON.stringify(shown.body) };
}

const NO_HEADER: Record<string, Json> = {};

/** Links that travel in headers since all do, and those that were chosen to; a link that is among both does once. */
function joined(service: RequestContext, all: Json, besides: Json): Json {
  if (!isJsonObject(all) || !isJsonObject(besides)) return withOrigin(service, all ?? besides);
  const links = Object.assign(bareObject(), all);
  for (const [relation, more] of Object.entries(besides)) {
    const known = targetsIn(links[relation] ?? null);
    const others = targetsIn(more).filter((target) => !known.some((one) => sameJson(one, target)));
    links[relation] = [...known, ...others];
  }
  return withOrigin(service, links);
}

/** A list made of texts, and the text of it without them. */
interface ListOfTexts {
  readonly rendered: RenderedBody;
  readonly around: string;
}

/** A list in plain JSON, from the texts of its records and a body that has everything else, its items empty. */
export function listOfTexts(
  service: RequestContext,
  body: Record<string, Json>,
  kind: 'list' | 'bare list',
  texts: readonly string[],
): ListOfTexts {
  const { names } = service.contract;
  const items = `[${texts.join(',')}]`;
  const { headers, text } = renderBody(service, kind, body);
  const around = text ?? '';
  if (kind === 'bare list') return { rendered: { headers, text: items }, around };
  // The items come first, as they are built.
  const empty = `{${JSON.stringify(names.items)}:[]`;
  if (!around.startsWith(empty)) throw new Error('A list does not begin with its items.');
  const whole = `${empty.slice(0, -2)}${items}${around.slice(empty.length)}`;
  return { rendered: { headers, text: whole }, around };
}

interface Shown {
  readonly body: Json;
  /** The links that travel in headers. */
  readonly inHeaders: Json;
}

function plain(service: RequestContext, kind: BodyKind, body: Record<string, Json>): Shown {
  const { names, representation } = service.contract;
  const isLinked = representation.links === 'object';
  const links = body[names.links] ?? null;
  const inHeaders = representation.links === 'none' ? null : links;
  // Mostly a body is answered just as it was built.
  const isAsBuilt = (given: Json): boolean =>
    isLinked && service.origin === '' && isJsonObject(given) && !(EMBEDDED in given);
  const record = (given: Json): Json => (isAsBuilt(given) ? given : flattened(service, given, isLinked));
  if (kind === 'record' && representation.record !== null)
    return {
      body: inEnvelope(service, representation.record, record(body)),
      inHeaders: isLinked ? null : inHeaders,
    };
  if (!isList(kind)) return { body: record(body), inHeaders: isLinked ? null : inHeaders };
  const items = listed(body[names.items]).map(record);
  if (kind === 'bare list') return { body: items, inHeaders };
  const object: Record<string, Json> = Object.assign(bareObject(), body, { [names.items]: items });
  if (!isLinked) delete object[names.links];
  else object[names.links] = withOrigin(service, links);
  return { body: object, inHeaders: isLinked ? null : inHeaders };
}

/** One record in a member of the body, with what stands beside it. */
function inEnvelope({ contract }: RequestContext, envelope: RecordEnvelope, record: Json): Json {
  const { member, links, constants } = envelope;
  const { names } = contract;
  const body = bareObject();
  const isBeside = links === 'beside' && isJsonObject(record) && names.links in record;
  const { [names.links]: own = null, ...rest } = isJsonObject(record) ? record : {};
  body[member] = isBeside ? rest : record;
  if (isBeside) body[names.links] = own;
  for (const { name, value } of constants) body[name] = value;
  return body;
}

/** The text of one record in the same place, from its own text; `null` where its links move. */
export function textInEnvelope({ contract }: RequestContext, record: string): string | null {
  const envelope = contract.representation.record;
  if (envelope === null) return record;
  if (envelope.links === 'beside') return null;
  const all = [`${JSON.stringify(envelope.member)}:${record}`];
  for (const { name, value } of envelope.constants)
    all.push(`${JSON.stringify(name)}:${JSON.stringify(value)}`);
  return `{${all.join(',')}}`;
}

const listed = (items: Json | undefined): readonly Json[] =>
  Array.isArray(items) ? (items as readonly Json[]) : [];

/** A record as plain JSON: what is inside it are members like others. */
function flattened(service: RequestContext, record: Json, isLinked: boolean): Json {
  if (!isJsonObject(record)) return record;
  const object = bareObject();
  for (const [name, value] of Object.entries(record)) {
    if (name === service.contract.names.links) {
      if (isLinked) object[name] = withOrigin(service, value);
      continue;
    }
    if (name !== EMBEDDED || !isJsonObject(value)) {
      object[name] = value;
      continue;
    }
    for (const inside of Object.values(value)) {
      const { name: member, records } = insideOf(inside);
      object[member] = Array.isArray(records)
        ? records.map((one: Json) => flattened(service, one, isLinked))
        : flattened(service, records, isLinked);
    }
  }
  return object;
}

/** Links with whole URIs, where the arrangement wants them. */
function withOrigin({ origin }: RequestContext, links: Json): Json {
  if (origin === '' || !isJsonObject(links)) return links;
  const whole = bareObject();
  for (const [relation, link] of Object.entries(links)) whole[relation] = withWholeHref(origin, link);
  return whole;
}

function withWholeHref(origin: string, link: Json): Json {
  if (Array.isArray(link)) return link.map((one: Json) => withWholeHref(origin, one));
  if (!isJsonObject(link)) return link;
  const href = scalarText(link['href']);
  // An address elsewhere is whole already.
  return href.startsWith('/') ? { ...link, href: origin + href } : link;
}

/** One kind of related records: the member that plain JSON calls them, and themselves. */
function insideOf(inside: Json): { readonly name: string; readonly records: Json } {
  if (!isJsonObject(inside) || typeof inside['name'] !== 'string')
    throw new Error('What is inside a record has no name.');
  return { name: inside['name'], records: inside['value'] ?? null };
}

/** HAL (draft-kelly-json-hal §4, §8.2): links under `_links`, what a list or a record holds under `_embedded`. */
function hal(service: RequestContext, kind: BodyKind, body: Record<string, Json>): Shown {
  const { names } = service.contract;
  const curies = [{ name: CURIE, href: relationUri(service, '{rel}'), templated: true }];
  const record = (given: Json, isRoot: boolean): Json => {
    if (!isJsonObject(given)) return given;
    const { [names.links]: own = null, [EMBEDDED]: inside = null, ...rest } = given;
    const links = withOrigin(service, own);
    const named = isJsonObject(links) ? Object.entries(links) : [];
    const all = Object.fromEntries(named.map(([relation, link]) => [curied(service, relation), link]));
    const hasOwn = isList(kind) || inside !== null || named.some(([one]) => !isRegistered(service, one));
    const object = Object.assign(bareObject(), rest, {
      _links: { ...all, ...(isRoot && hasOwn ? { curies } : {}) },
    });
    if (isJsonObject(inside)) object[EMBEDDED] = embedded(service, inside, (one) => record(one, false));
    return object;
  };
  if (!isList(kind)) return { body: record(body, true), inHeaders: null };
  const { [names.items]: items, ...page } = body;
  const whole = record(Object.assign(bareObject(), page), true);
  const item = listed(items).map((one) => record(one, false));
  return { body: Object.assign(bareObject(), whole, { [EMBEDDED]: { item } }), inHeaders: null };
}

const curied = (service: RequestContext, relation: string): string =>
  isRegistered(service, relation) ? relation : `${CURIE}:${relation}`;

/** By relation; what is not there is left out. */
function embedded(
  service: RequestContext,
  inside: { readonly [relation: string]: Json },
  record: (given: Json) => Json,
): Json {
  const object = bareObject();
  for (const [relation, one] of Object.entries(inside)) {
    const { records } = insideOf(one);
    if (records === null) continue;
    object[curied(service, relation)] = Array.isArray(records) ? records.map(record) : record(records);
  }
  return object;
}

/** What a link says of its target, as parameters in the order of their names. */
function attributesText(link: JsonObject, write: (name: string, text: string) => string): string {
  const told = LINK_ATTRIBUTE_NAMES.flatMap((name) => {
    const text = link[name];
    return typeof text === 'string' ? [`; ${write(name, text)}`] : [];
  });
  return told.join('');
}

const IS_ASCII = /^[\x20-\x7e]*$/;
const quoted = (text: string): string => `"${text.replace(/["\\]/g, '\\$&')}"`;

/** A parameter of `Link`: a title that is not ASCII has an extended value (RFC 8288 §3.4.1). */
const inLink = (name: string, text: string): string =>
  IS_ASCII.test(text) ? `${name}=${quoted(text)}` : `${name}*=UTF-8''${percentEncoded(text)}`;

/** A parameter of `Link-Template`: such a title is a Display String (RFC 9651 §3.3.8). */
const inTemplate = (name: string, text: string): string =>
  IS_ASCII.test(text) ? `${name}=${quoted(text)}` : `${name}=%"${displayString(text)}"`;

const displayString = (text: string): string =>
  [...utf8.decode(text)]
    .map((byte) =>
      byte < 0x20 || byte > 0x7e || byte === 0x22 || byte === 0x25
        ? `%${byte.toString(16).padStart(2, '0')}`
        : String.fromCharCode(byte),
    )
    .join('');

/** `Link` (RFC 8288 §3), and `Link-Template` (RFC 9652 §2) for URI templates. */
function linkHeaders(service: RequestContext, links: Json): readonly (readonly [string, string])[] {
  if (!isJsonObject(links)) return [];
  const texts: Record<'Link' | 'Link-Template', string[]> = { Link: [], 'Link-Template': [] };
  for (const [relation, link] of Object.entries(links)) {
    const rel = isRegistered(service, relation) ? relation : relationUri(service, relation);
    for (const one of Array.isArray(link) ? (link as readonly Json[]) : [link]) {
      if (!isJsonObject(one) || typeof one['href'] !== 'string') continue;
      const { href } = one;
      // Link-Template is a structured field (RFC 9651): its targets are strings, not URIs in angle brackets.
      if (one['templated'] !== true) texts.Link.push(`<${href}>; rel="${rel}"${attributesText(one, inLink)}`);
      else
        texts['Link-Template'].push(
          `"${href}"; rel="${rel}"; var-base="${variablePath(service.contract.root, '')}"${attributesText(one, inTemplate)}`,
        );
    }
  }
  return Object.entries(texts).flatMap(([name, all]) =>
    all.length === 0 ? [] : [[name, all.join(', ')] as const],
  );
}
