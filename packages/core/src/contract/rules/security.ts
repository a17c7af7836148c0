import type { Rule } from './rule.js';

export const SECURITY_RULES = {
  'security.authenticated': {
    title: 'Who are you',
    sentence: 'Where credentials are wanted, a request without valid ones answers 401.',
  },
  'security.role': {
    title: 'By role',
    sentence: 'Where a role is wanted, whoever does not have it is answered 403.',
  },
} as const satisfies Record<string, Rule>;
