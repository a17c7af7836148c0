import { isJsonObject, readJson, scalarText, type Json } from '../model/index.js';
import { escaped } from '../publication/index.js';
import type { EngineRequest, EngineResponse } from './message.js';
import { weightFor } from './negotiate.js';

/** Whether somebody reads in a browser: HTML is asked for by name, and more than any JSON. */
export function wantsHtml({ method, headers }: EngineRequest, offered: readonly string[]): boolean {
  if (method !== 'GET' && method !== 'HEAD') return false;
  const accept = headers.get('accept') ?? '';
  if (offered.includes(accept) || !/\btext\/html\b/i.test(accept)) return false;
  const html = weightFor(accept, 'text/html');
  return html > 0 && offered.every((type) => weightFor(accept, type) < html);
}

/** What pages may load: nothing but their own style. */
const POLICY = "default-src 'none'; style-src 'unsafe-inline'";

/**
 * The same answer as a plain page to read, its links to be followed; what is a page stays as it is. Its tag is not that
 * of the JSON.
 */
export function asHtml(
  title: string,
  root: string,
  { target }: EngineRequest,
  response: EngineResponse,
): EngineResponse {
  const { status, headers, body } = response;
  if (headers.some(([name, value]) => name === 'Content-Type' && value.startsWith('text/html')))
    return response;
  const kept = headers.filter(([name]) => !OF_THE_JSON.has(name));
  const links = [...headerLinks(headers), ...itemsByTemplate(headers, body)];
  const text = [
    '<!doctype html>',
    '<html lang="en">',
    `<head><meta charset="utf-8"><title>${escaped(title)}</title><style>${STYLE}</style></head>`,
    '<body>',
    `<header><p>${crumbs(target, root)}</p><p class="quiet">${status} ${escaped(title)}</p></header>`,
    ...(links.length === 0 ? [] : [`<ul>${links.join('')}</ul>`]),
    `<pre>${bodyText(headers, body)}</pre>`,
    '</body></html>',
    '',
  ].join('\n');
  return {
    status,
    headers: [
      ...kept,
      ['Content-Type', 'text/html; charset=utf-8'],
      ['Content-Security-Policy', POLICY],
      ['X-Content-Type-Options', 'nosniff'],
    ],
    body: text,
  };
}

const OF_THE_JSON: ReadonlySet<string> = new Set(['Content-Type', 'ETag', 'Last-Modified', 'Content-Length']);

const STYLE = [
  'body{margin:0;background:#f3f5f6;color:#14212b;font:14px/1.5 "IBM Plex Mono",ui-monospace,monospace}',
  'header,ul,pre{margin:0;padding:12px 20px;border-bottom:1px solid #d3dbe1}',
  'header{background:#fff}p{margin:0}ul{list-style:none}',
  'pre{white-space:pre-wrap;overflow-wrap:anywhere}',
  'a{color:#0a5a6a}.quiet{color:#5b6b78}',
].join('');

/** The path, every part of it below the root a link. */
function crumbs(target: string, root: string): string {
  const [path = '', query] = target.split('?', 2);
  const start = path === root || path.startsWith(`${root}/`) ? root : '';
  const parts = path
    .slice(start.length)
    .split('/')
    .filter((part) => part !== '');
  const links = parts.map(
    (part, index) => `/${anchor(`${start}/${parts.slice(0, index + 1).join('/')}`, part)}`,
  );
  const first = start === '' ? '' : anchor(start, start);
  return first + links.join('') + (query === undefined ? '' : escaped(`?${query}`));
}

/** Links in headers (RFC 8288 §3), each on a line. */
const headerLinks = (headers: EngineResponse['headers']): readonly string[] =>
  valuesOf(headers, 'Link')
    .flatMap((value) => [...value.matchAll(/<([^>]*)>; rel="([^"]*)"/g)])
    .map(([, href = '', rel = '']) => linkLine(rel, href));

const valuesOf = (headers: EngineResponse['headers'], wanted: string): readonly string[] =>
  headers.filter(([name]) => name === wanted).map(([, value]) => value);

/** A relation of one's own by its name alone. */
const linkLine = (rel: string, href: string): string =>
  `<li>${escaped(rel.slice(rel.lastIndexOf('/') + 1))} ${anchor(href, href)}</li>`;

/** Where each record of a list is, by the templates in its headers (RFC 9652) and its members. */
function itemsByTemplate(headers: EngineResponse['headers'], body: string | null): readonly string[] {
  const templates = valuesOf(headers, 'Link-Template').flatMap((value) => [
    ...value.matchAll(/"([^"]*)"; rel="([^"]*)"/g),
  ]);
  const read = templates.length === 0 || body === null ? null : readJson(body);
  if (read?.ok !== true) return [];
  const items = listIn(read.value);
  return templates.flatMap(([, template = '', rel = '']) =>
    items.flatMap((item) => {
      const href = filledIn(template, item);
      return href === null ? [] : [linkLine(rel, href)];
    }),
  );
}

/** The records of a bare list, or of the first list of an object around one. */
function listIn(body: Json): readonly Json[] {
  if (Array.isArray(body)) return body as readonly Json[];
  const lists = isJsonObject(body) ? Object.values(body).filter((value) => Array.isArray(value)) : [];
  return (lists[0] ?? []) as readonly Json[];
}

/** A template with the members of a record in the place of its variables; `null` where one is not there. */
export function filledIn(template: string, item: Json): string | null {
  if (!isJsonObject(item)) return null;
  const valueOf = (name: string): Json => (Object.hasOwn(item, name) ? (item[name] ?? null) : null);
  const names = [...template.matchAll(VARIABLES)].map(([, name = '']) => name);
  if (names.some((name) => valueOf(name) === null)) return null;
  return template.replace(VARIABLES, (_, name: string) => encodeURIComponent(scalarText(valueOf(name))));
}

const VARIABLES = /\{(\w+)\}/g;

function bodyText(headers: EngineResponse['headers'], body: string | null): string {
  if (body === null) return '';
  const isJson = headers.some(([name, value]) => name === 'Content-Type' && value.includes('json'));
  const read = isJson ? readJson(body) : null;
  return read?.ok === true ? printed(read.value, '', '') : escaped(body);
}

/** JSON over several lines, with what leads somewhere as a link. */
function printed(value: Json, indent: string, name: string): string {
  if (typeof value === 'string') {
    const text = JSON.stringify(value);
    const leads = (name === 'href' || name === 'type') && isPlace(value);
    return leads ? `"${anchor(value, value)}"` : escaped(text);
  }
  const deeper = `${indent}  `;
  if (Array.isArray(value)) {
    if (value.length === 0) return '[]';
    const items = (value as readonly Json[]).map((item) => deeper + printed(item, deeper, name));
    return `[\n${items.join(',\n')}\n${indent}]`;
  }
  if (!isJsonObject(value)) return JSON.stringify(value);
  const isTemplate = value['templated'] === true;
  const members = Object.entries(value).map(
    ([key, inner]) =>
      `${deeper}${escaped(JSON.stringify(key))}: ${printed(inner, deeper, isTemplate ? '' : key)}`,
  );
  return members.length === 0 ? '{}' : `{\n${members.join(',\n')}\n${indent}}`;
}

/** A path of this host, or a whole address of the web; nothing that runs. */
const isPlace = (text: string): boolean => /^(?:\/(?!\/)|https?:\/\/)/.test(text);

const anchor = (href: string, text: string): string =>
  isPlace(href)
    ? `<a href="${escaped(href)}"${href.startsWith('/') ? '' : ' rel="noreferrer"'}>${escaped(text)}</a>`
    : escaped(text);
