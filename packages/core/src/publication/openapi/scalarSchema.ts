import type { Settings } from '../../arrangement/index.js';
import { DURATION, TIME, type Json, type ScalarType } from '../../model/index.js';
import { publishedPattern } from '../scalarTypes.js';

/** A JSON Schema of dialect 2020-12, as OpenAPI 3.1 embeds it. */
export type JsonSchema = { readonly [keyword: string]: Json };

/** How schemas say how many digits a decimal has. */
export type DecimalScales = Settings['decimalScales'];

/** The schema of a value that is one JSON string, number or boolean. */
export function scalarSchema(type: ScalarType, scales: DecimalScales = 'described'): JsonSchema {
  switch (type.kind) {
    case 'text': {
      const pattern = type.pattern === null ? null : publishedPattern(type.pattern);
      return {
        type: 'string',
        ...bounds('minLength', type.min, 'maxLength', type.max),
        ...(pattern === null ? {} : { pattern }),
      };
    }
    case 'integer':
      return { type: 'integer', ...bounds('minimum', type.min, 'maximum', type.max) };
    case 'decimal':
      return {
        type: 'number',
        ...bounds(
          type.exclusiveMin === true ? 'exclusiveMinimum' : 'minimum',
          type.min,
          type.exclusiveMax === true ? 'exclusiveMaximum' : 'maximum',
          type.max,
        ),
        ...(scales === 'multipleOf' && type.scale !== null ? { multipleOf: Number(`1e-${type.scale}`) } : {}),
      };
    case 'boolean':
      return { type: 'boolean' };
    case 'time':
      return { type: 'string', pattern: TIME.source };
    case 'duration':
      return { type: 'string', pattern: DURATION.source };
    case 'instant':
      return { type: 'string', format: 'date-time' };
    case 'date':
    case 'uuid':
    case 'email':
    case 'uri':
      return { type: 'string', format: type.kind };
    case 'choice':
      return { type: 'string', enum: type.options };
  }
}

/** Two keywords for the ends of a range, as far as it has them. */
export function bounds(least: string, min: number | null, most: string, max: number | null): JsonSchema {
  return { ...(min === null ? {} : { [least]: min }), ...(max === null ? {} : { [most]: max }) };
}
