import type { AttributeType } from '../../model/index.js';
import { decimalWithin, wholeWithin } from '../bounds.js';
import { same, type SqlCheck, type SqlCheckMeaning, type SqlColumn, type SqlTable } from './schema.js';

/** What became of checks. */
export class ChecksSaid {
  /** An attribute that says each, or a part of it. */
  readonly by = new Map<SqlCheck, string>();
  /** Those of which something could not be said. */
  readonly unsaid = new Set<SqlCheck>();
}

/**
 * Narrows a type by the checks that are about the column alone: those of its table, and those of its domain, which call
 * it VALUE. What a check asks of one column counts as understood with its attribute.
 */
export function withChecks(
  { checks }: SqlTable,
  column: SqlColumn,
  type: AttributeType,
  ofDomain: readonly SqlCheck[],
  attribute: string,
  said: ChecksSaid,
): AttributeType {
  let narrowed = type;
  const narrow = (check: SqlCheck, name: string): void => {
    for (const meaning of check.meaning ?? []) {
      if (!same(meaning.column, name)) continue;
      const next = narrowedBy(narrowed, meaning);
      if (next === null) said.unsaid.add(check);
      else narrowed = next;
      said.by.set(check, attribute);
    }
  };
  for (const check of ofDomain) narrow(check, 'VALUE');
  for (const check of checks) narrow(check, column.name);
  return narrowed;
}

/** A type as one meaning of a check leaves it; `null` where the notation has no words for that. */
function narrowedBy(type: AttributeType, meaning: SqlCheckMeaning): AttributeType | null {
  switch (meaning.kind) {
    case 'in':
      if (type.kind === 'choice') {
        const options = type.options.filter((option) => meaning.options.includes(option));
        return options.length === 0 ? null : { kind: 'choice', options };
      }
      return type.kind === 'text' ? { kind: 'choice', options: [...new Set(meaning.options)] } : null;
    case 'length': {
      if (type.kind !== 'text') return null;
      return { ...type, ...wholeWithin(type, meaning.min, meaning.max) };
    }
    case 'range':
      if (type.kind === 'integer') return { ...type, ...wholeWithin(type, meaning.min, meaning.max) };
      if (type.kind !== 'decimal') return null;
      return decimalWithin(type, meaning.min, meaning.max);
  }
}
