import type { Json } from './records.js';
import { checkScalar } from './scalars.js';
import type { AttributeType } from './types.js';

/** What is wrong with a default or an example of a type; `null` where it fits. Of a value there is none. */
export function literalProblem(type: AttributeType, literal: Json): string | null {
  switch (type.kind) {
    case 'json':
      return null;
    case 'value':
      return `A ${type.name} has none.`;
    case 'list': {
      if (!Array.isArray(literal)) return 'Expected a list in brackets.';
      const { length } = literal;
      if (length < (type.min ?? 0) || length > (type.max ?? Infinity)) return `It has ${length} entries.`;
      for (const item of literal as readonly Json[]) {
        const problem = literalProblem(type.of, item);
        if (problem !== null) return problem;
      }
      return null;
    }
    default:
      return checkScalar(type, literal)?.message ?? null;
  }
}
