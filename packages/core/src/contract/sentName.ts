import type { FilterOperator } from '../arrangement/index.js';

/**
 * The name of a filter as a URL has it. Brackets may not stand in a query as they are (RFC 3986 §3.4), and shells take
 * them for patterns.
 */
export const sentName = (name: string, operator: FilterOperator): string =>
  encodeURIComponent(operator === 'eq' ? name : `${name}[${operator}]`);
