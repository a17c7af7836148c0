import type { Contract, Operation } from '../contract/index.js';
import type { EngineRequest, EngineResponse, Header } from './message.js';
import { readTarget } from './target.js';

/** What tells contracts at one origin apart: where each begins, and its version where a header names it. */
export type Addressing = Pick<Contract, 'root' | 'version' | 'versionHeader'>;

/** Something else that is served at the same origin. */
export interface Sibling extends Addressing {
  /** The arrangement, or release and a label. */
  readonly name: string;
}

const segmentsOf = (root: string): readonly string[] => root.split('/').filter((part) => part !== '');

const beginsWith = (path: readonly string[], start: readonly string[]): boolean =>
  start.every((part, index) => path[index] === part);

/**
 * Whether requests to two contracts can be told apart at one origin: no root begins with the other, segment by segment;
 * or they have one root, and a header names the version, which differs.
 */
export function canShareOrigin(one: Addressing, other: Addressing): boolean {
  const [mine, theirs] = [segmentsOf(one.root), segmentsOf(other.root)];
  if (one.root === other.root)
    return (
      one.versionHeader !== null && one.versionHeader === other.versionHeader && one.version !== other.version
    );
  return !beginsWith(mine, theirs) && !beginsWith(theirs, mine);
}

/**
 * The place of the contract that a request is for, among those at one origin: by its path, then by the version that a
 * header names; without it, or with one that nobody has, the first of them. -1 where none has its path.
 */
export function addressed(
  contracts: readonly Addressing[],
  target: string,
  header: (name: string) => string | undefined,
): number {
  const read = readTarget(target);
  if (!read.ok) return -1;
  const { segments } = read.target;
  let first = -1;
  for (const [place, { root, version, versionHeader }] of contracts.entries()) {
    if (!beginsWith(segments, segmentsOf(root))) continue;
    if (first < 0) first = place;
    if (versionHeader !== null && header(versionHeader.toLowerCase()) === version) return place;
  }
  return first;
}

/** What is served beside a contract, in words for who asks for what is not there; empty where nothing is. */
export const besideInWords = (siblings: readonly Sibling[]): string =>
  siblings.length === 0 ? '' : ` Served beside it: ${siblings.map(siblingText).join(', ')}.`;

const siblingText = ({ root, version, versionHeader, name }: Sibling): string => {
  const place = root === '' ? '/' : root;
  return versionHeader === null
    ? `${place} (${name})`
    : `${place} with ${versionHeader}: ${version} (${name})`;
};

/** Links from an entry to the entries beside it (RFC 8288); those that a header tells apart have no address of their own. */
const besideLinks = (root: string, origin: string, siblings: readonly Sibling[]): readonly Header[] =>
  siblings.flatMap((sibling): Header[] =>
    sibling.root === root
      ? []
      : [
          [
            'Link',
            `<${origin}${sibling.root === '' ? '/' : sibling.root}>; rel="related"; title="${sibling.name}"`,
          ],
        ],
  );

/** A contract at an origin, which stands before the paths of links; what is served beside it. */
interface AtOrigin {
  readonly contract: Addressing;
  readonly origin: string;
  readonly beside?: (() => readonly Sibling[]) | undefined;
}

/** The entry leads to those that are beside it. */
export function withSiblings(
  response: EngineResponse,
  operation: Pick<Operation, 'verb'> | null,
  { contract, origin, beside }: AtOrigin,
): EngineResponse {
  if (beside === undefined || operation?.verb !== 'entry') return response;
  const links = besideLinks(contract.root, origin, beside());
  return links.length === 0 ? response : { ...response, headers: [...response.headers, ...links] };
}

/** An answer that depends on a header which names the version (RFC 9110 §12.5.5). */
export function varyingBy(response: EngineResponse, name: string): EngineResponse {
  const at = response.headers.findIndex(([header]) => header.toLowerCase() === 'vary');
  const before = response.headers[at]?.[1];
  if (before === undefined) return { ...response, headers: [...response.headers, ['Vary', name]] };
  const headers = response.headers.map((header, place): Header =>
    place === at ? [header[0], `${before}, ${name}`] : header,
  );
  return { ...response, headers };
}

/** What stands at an origin where several contracts begin: their entries, as JSON or as a page. */
export function entriesOf(
  { headers }: Pick<EngineRequest, 'headers'>,
  entries: readonly Sibling[],
): EngineResponse {
  const told = entries.map(({ root, version, versionHeader, name }) => ({
    href: root === '' ? '/' : root,
    name,
    version,
    ...(versionHeader === null ? {} : { header: versionHeader }),
  }));
  const wantsPage = (headers.get('accept') ?? '').includes('text/html');
  if (!wantsPage)
    return {
      status: 200,
      headers: [
        ['Content-Type', 'application/json'],
        ['Vary', 'Accept'],
      ],
      body: JSON.stringify({ entries: told }),
    };
  const items = told.map(
    ({ href, name }) => `<li><a href="${escaped(href)}">${escaped(href)}</a> ${escaped(name)}</li>`,
  );
  return {
    status: 200,
    headers: [
      ['Content-Type', 'text/html; charset=utf-8'],
      ['Content-Security-Policy', "default-src 'none'"],
      ['Vary', 'Accept'],
    ],
    body: `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><title>Entries</title></head><body><ul>${items.join('')}</ul></body></html>\n`,
  };
}

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

const escaped = (text: string): string => text.replace(/[&<>"]/g, (character) => ESCAPES[character] ?? '');
