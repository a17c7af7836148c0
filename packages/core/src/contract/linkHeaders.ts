import { isCarried, linksCarriedWith } from './linkPlaces.js';
import type { Operation } from './operation.js';
import type { Contract, LinkTarget } from './types.js';

/** What `Link` and `Link-Template` of an answer say; `null` where it has none. */
interface LinkHeaders {
  readonly link: string | null;
  readonly template: string | null;
}

/** The headers in which an answer carries links. `areAll`: whether plain JSON has all of them there. */
export function linkHeaders(contract: Contract, operation: Operation, areAll: boolean): LinkHeaders {
  const { memberLinks } = contract.representation;
  const links = linksCarriedWith(contract, operation).filter(
    (link) => isCarried(link, 'header', memberLinks) || (areAll && isCarried(link, 'items', memberLinks)),
  );
  const templates = links.map(({ target }) => templateSays(target)).filter((says) => says !== null);
  const isLinked = areAll || links.some(({ target }) => templateSays(target) === null);
  return { link: isLinked ? 'Where it leads (RFC 8288).' : null, template: templates[0] ?? null };
}

/** What a URI template is filled in with; `null` where a target is none. */
function templateSays(target: LinkTarget): string | null {
  switch (target.kind) {
    case 'template':
      return 'Where each item is (RFC 9652), by members of it.';
    case 'resource':
      return target.query === undefined ? null : 'What a query is asked for (RFC 9652).';
    case 'operation':
      return target.open.path.length + target.open.query.length === 0
        ? null
        : 'Where it leads once it is filled in (RFC 9652).';
    case 'self':
    case 'about':
    case 'reference':
    case 'read':
    case 'filtered':
    case 'owner':
    case 'action':
    case 'custom':
    case 'items':
    case 'pair':
    case 'page':
    case 'description':
    case 'along':
    case 'address':
      return null;
  }
}
