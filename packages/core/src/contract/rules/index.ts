import { FINDING_RULES } from './finding.js';
import { LINK_RULES } from './link.js';
import { LIST_RULES } from './list.js';
import { MEMBER_RULES } from './member.js';
import { NAME_RULES } from './name.js';
import { OPERATION_RULES } from './operation.js';
import { PLACE_RULES } from './place.js';
import { SECURITY_RULES } from './security.js';
import { STATUS_RULES } from './status.js';

/** The rules of derivation, by what they are about. */
export const RULES = {
  ...PLACE_RULES,
  ...OPERATION_RULES,
  ...NAME_RULES,
  ...MEMBER_RULES,
  ...FINDING_RULES,
  ...LIST_RULES,
  ...LINK_RULES,
  ...STATUS_RULES,
  ...SECURITY_RULES,
} as const;

export type RuleId = keyof typeof RULES;
