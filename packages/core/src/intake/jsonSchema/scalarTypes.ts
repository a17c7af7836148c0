import { patternProblem, type AttributeType, type Json } from '../../model/index.js';
import { allowsNull, asSchema, numberIn, textIn, typesOf, type Schema } from './schemas.js';

const FORMATS: Readonly<
  Record<string, Exclude<AttributeType['kind'], 'text' | 'integer' | 'decimal' | 'choice' | 'list' | 'value'>>
> = {
  'date-time': 'instant',
  date: 'date',
  time: 'time',
  duration: 'duration',
  email: 'email',
  'idn-email': 'email',
  uuid: 'uuid',
  uri: 'uri',
  'uri-reference': 'uri',
  iri: 'uri',
};

/** What a schema without properties and references says of a value; `null` where a model has no such type. */
export function scalarTypeOf(schema: Schema): AttributeType | null {
  const options = optionsOf(schema);
  if (options !== null) return { kind: 'choice', options };
  const types = typesOf(schema);
  const [type] = types;
  if (types.length > 1)
    return types.every((name) => name === 'integer' || name === 'number') ? decimal(schema) : null;
  switch (type) {
    case 'string':
      return textType(schema);
    case 'integer':
      return { kind: 'integer', ...wholeRange(schema) };
    case 'number':
      return decimal(schema);
    case 'boolean':
      return { kind: 'boolean' };
    case undefined:
      return impliedType(schema);
    default:
      return null;
  }
}

/** A schema without `type` may still say it by keywords that only one type has. */
function impliedType(schema: Schema): AttributeType | null {
  if ('format' in schema || 'minLength' in schema || 'maxLength' in schema || 'pattern' in schema)
    return textType(schema);
  if ('minimum' in schema || 'maximum' in schema || 'multipleOf' in schema) return decimal(schema);
  return null;
}

function textType(schema: Schema): AttributeType {
  const format = textIn(schema, 'format');
  const kind = format !== null && Object.hasOwn(FORMATS, format) ? FORMATS[format] : undefined;
  if (kind !== undefined) return { kind };
  return {
    kind: 'text',
    min: numberIn(schema, 'minLength'),
    max: numberIn(schema, 'maxLength'),
    pattern: patternOf(schema),
  };
}

/**
 * A pattern of a schema matches anywhere; one of a model matches the whole value. `null` where there is none,
 * or none that both read alike.
 */
export function patternOf(schema: Schema): string | null {
  const given = textIn(schema, 'pattern');
  if (given === null) return null;
  const isOpenBefore = !given.startsWith('^');
  const isOpenBehind = !given.endsWith('$') || given.endsWith('\\$');
  const inner = given.slice(isOpenBefore ? 0 : 1, isOpenBehind ? undefined : -1);
  const hasAlternatives = /(?<!\\)\|/.test(inner) && (isOpenBefore || isOpenBehind);
  const core = hasAlternatives ? `(?:${inner})` : inner;
  const whole = `${isOpenBefore ? '.*' : ''}${core}${isOpenBehind ? '.*' : ''}`;
  return patternProblem(whole) === null ? whole : null;
}

function wholeRange(schema: Schema): { readonly min: number | null; readonly max: number | null } {
  const [low, high] = [numberIn(schema, 'minimum'), numberIn(schema, 'maximum')];
  const [above, below] = [numberIn(schema, 'exclusiveMinimum'), numberIn(schema, 'exclusiveMaximum')];
  return {
    min: largest(low === null ? null : Math.ceil(low), above === null ? null : Math.floor(above) + 1),
    max: smallest(high === null ? null : Math.floor(high), below === null ? null : Math.ceil(below) - 1),
  };
}

const largest = (a: number | null, b: number | null): number | null =>
  a === null || b === null ? (a ?? b) : Math.max(a, b);
const smallest = (a: number | null, b: number | null): number | null =>
  a === null || b === null ? (a ?? b) : Math.min(a, b);

/** `multipleOf: 0.01` is a scale of two. */
function decimal(schema: Schema): AttributeType {
  const step = numberIn(schema, 'multipleOf');
  const scale = step === null ? -1 : Math.round(-Math.log10(step));
  const isScale = step !== null && scale >= 0 && scale <= 15 && Math.abs(step - 10 ** -scale) < 1e-12;
  const bounds = {
    min: largest(numberIn(schema, 'minimum'), numberIn(schema, 'exclusiveMinimum')),
    max: smallest(numberIn(schema, 'maximum'), numberIn(schema, 'exclusiveMaximum')),
  };
  if (isScale && scale === 0) return { kind: 'integer', ...wholeRange(schema) };
  return { kind: 'decimal', scale: isScale ? scale : null, ...bounds };
}

/** The closed list of texts that `enum`, `const`, or alternatives of `const` give. */
function optionsOf(schema: Schema): readonly string[] | null {
  const listed = schema['enum'] ?? (schema['const'] === undefined ? null : [schema['const']]);
  const alternatives = schema['oneOf'] ?? schema['anyOf'];
  const given =
    listed ??
    (Array.isArray(alternatives)
      ? (alternatives as readonly Json[]).flatMap((item) => {
          const inner = asSchema(item);
          if (allowsNull(inner) && typesOf(inner).length === 0) return [];
          return [inner['const'] ?? 0];
        })
      : null);
  if (!Array.isArray(given)) return null;
  const texts = (given as readonly Json[]).filter((option) => option !== null);
  const isTexts = texts.length > 0 && texts.every((option) => typeof option === 'string' && option !== '');
  return isTexts ? [...new Set(texts as readonly string[])] : null;
}
