import type { Assumption } from '../../contract/index.js';
import type { DerivationContext } from '../context.js';
import { assumeExistence } from './existence.js';
import { assumeIds } from './ids.js';
import { assumeMade } from './made.js';
import { assumePageSize } from './pageSize.js';
import { assumePlurals } from './plurals.js';
import { assumeRoles } from './roles.js';
import { assumeSecrets } from './secrets.js';
import { assumeTwice } from './twice.js';

const KINDS: readonly ((context: DerivationContext) => readonly Assumption[])[] = [
  assumeSecrets,
  assumeExistence,
  assumeMade,
  assumeTwice,
  assumeRoles,
  assumeIds,
  assumePageSize,
  assumePlurals,
];

/** The decisions derivation took on its own, each as a question with its alternatives. */
export const findAssumptions = (context: DerivationContext): readonly Assumption[] =>
  KINDS.flatMap((find) => find(context));
