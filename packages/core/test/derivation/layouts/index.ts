import { CUSTOMS } from './customOperations.js';
import { FREE } from './free.js';
import { INLINE } from './inline.js';
import { LISTS } from './lists.js';
import { MEMBERS } from './members.js';
import { NAMES } from './names.js';
import { OWNS_MANY } from './ownsMany.js';
import { OWNS_ONE } from './ownsOne.js';
import { PAIRS_WITH } from './pairsWith.js';
import { REFERS_TO } from './refersTo.js';
import { TRANSITIONS } from './transitions.js';
import type { Chapter } from './layout.js';

/** Small models under settings, with everything expected written by hand: the rules, as a table. */
export const LAYOUTS: readonly Chapter[] = [
  FREE,
  OWNS_MANY,
  OWNS_ONE,
  INLINE,
  REFERS_TO,
  PAIRS_WITH,
  TRANSITIONS,
  CUSTOMS,
  NAMES,
  MEMBERS,
  LISTS,
];
