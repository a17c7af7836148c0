import type { LinkPlace, Settings } from '../arrangement/index.js';
import type { Link } from './types.js';

/** Whether a link is carried at a place: as it was chosen for it, else as it is for all links of the arrangement. */
export function isCarried(link: Link, place: LinkPlace, memberLinks: Settings['memberLinks']): boolean {
  if (link.in !== null) return link.in.includes(place);
  switch (place) {
    case 'items':
      return true;
    case 'lists':
      return memberLinks === 'all' || (memberLinks === 'self' && link.target.kind === 'self');
    case 'header':
      return false;
  }
}
