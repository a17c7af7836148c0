import { patternProblem, type AttributeType, type Json, type Range } from '../../model/index.js';
import { decimalWithin, wholeWithin, type Bound } from '../bounds.js';
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
  const numbers = wholeOptions(schema);
  if (numbers !== null) return { kind: 'integer', min: numbers[0] ?? null, max: numbers.at(-1) ?? null };
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

const OF_NUMBERS = ['minimum', 'maximum', 'exclusiveMinimum', 'exclusiveMaximum', 'multipleOf'];

/** A schema without `type` may still say it by keywords that only one type has. */
function impliedType(schema: Schema): AttributeType | null {
  if ('format' in schema || 'minLength' in schema || 'maxLength' in schema || 'pattern' in schema)
    return textType(schema);
  if (OF_NUMBERS.some((keyword) => keyword in schema)) return decimal(schema);
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

/** What is said of the ends of a range: in the drafts of today by a number, in older ones by `true` beside it. */
function boundsIn(schema: Schema): readonly { readonly min: Bound | null; readonly max: Bound | null }[] {
  const end = (name: string, isExclusive: boolean): Bound | null => {
    const value = numberIn(schema, name);
    return value === null ? null : { value, isExclusive };
  };
  return [
    {
      min: end('minimum', schema['exclusiveMinimum'] === true),
      max: end('maximum', schema['exclusiveMaximum'] === true),
    },
    { min: end('exclusiveMinimum', true), max: end('exclusiveMaximum', true) },
  ];
}

const OPEN = { min: null, max: null } as const;

const wholeRange = (schema: Schema): Range =>
  boundsIn(schema).reduce<Range>((range, { min, max }) => wholeWithin(range, min, max), OPEN);

/** `multipleOf: 0.01` is a scale of two. */
function decimal(schema: Schema): AttributeType {
  const step = numberIn(schema, 'multipleOf');
  const isScale = step !== null && isScaleStep(step);
  const scale = isScale ? Math.round(-Math.log10(step)) : null;
  if (isScale && scale === 0) return { kind: 'integer', ...wholeRange(schema) };
  return boundsIn(schema).reduce<Extract<AttributeType, { kind: 'decimal' }>>(
    (type, { min, max }) => decimalWithin(type, min, max),
    {
      kind: 'decimal',
      scale: isScale ? scale : null,
      ...OPEN,
    },
  );
}

/** The whole numbers that `enum` or `const` give, in order; `null` where there are none, or anything else. */
export function wholeOptions(schema: Schema): readonly number[] | null {
  const listed = schema['enum'] ?? (schema['const'] === undefined ? null : [schema['const']]);
  if (!Array.isArray(listed)) return null;
  const numbers = (listed as readonly Json[]).filter((option): option is number =>
    Number.isSafeInteger(option),
  );
  const isAll = numbers.length > 0 && numbers.length === listed.filter((option) => option !== null).length;
  return isAll ? [...numbers].sort((a, b) => a - b) : null;
}

/** Whether a step of numbers is a scale, which a model has words for. */
export const isScaleStep = (step: number): boolean => {
  const scale = Math.round(-Math.log10(step));
  return scale >= 0 && scale <= 15 && Math.abs(step - 10 ** -scale) < 1e-12;
};

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
