import {
  bareObject,
  indexModel,
  isJsonObject,
  type AttributeType,
  type Json,
  type Model,
  type ScalarType,
} from '../model/index.js';

const TRUE = /^(1|t|true|y|yes|on)$/i;
const FALSE = /^(0|f|false|n|no|off)$/i;

/** A value as its type writes it, where a source writes it otherwise; anything that is no such value as it is. */
export function typedScalar(type: ScalarType, value: string | number | boolean): string | number | boolean {
  const text = String(value);
  switch (type.kind) {
    case 'boolean':
      return TRUE.test(text) ? true : FALSE.test(text) ? false : value;
    case 'integer':
    case 'decimal':
      return text.trim() === '' || Number.isNaN(Number(text)) ? value : Number(text);
    case 'instant':
      return asInstant(text);
    case 'time':
      return /^\d\d:\d\d$/.test(text) ? `${text}:00` : text;
    case 'duration':
      return asDuration(text);
    default:
      return text;
  }
}

/** The same for values of all types, by the names of the model; what these do not have is left out. */
export function typedValue(model: Model, type: AttributeType, value: Json): Json {
  switch (type.kind) {
    case 'json':
      return value;
    case 'list':
      return Array.isArray(value)
        ? (value as readonly Json[]).map((item) => typedValue(model, type.of, item))
        : value;
    case 'value': {
      if (!isJsonObject(value)) return value;
      const parts = indexModel(model).values.get(type.name)?.attributes ?? [];
      const typed = bareObject();
      for (const [name, part] of Object.entries(value)) {
        const attribute = parts.find((candidate) => candidate.name === name);
        if (attribute !== undefined) typed[name] = typedValue(model, attribute.type, part);
      }
      return typed;
    }
    default:
      return value === null || typeof value === 'object' ? value : typedScalar(type, value);
  }
}

/** `2026-01-01 09:30:00` as an instant of UTC; anything else as it is. */
function asInstant(text: string): string {
  const [, day, time = '00:00:00', zone = 'Z'] =
    /^(\d{4}-\d\d-\d\d)(?:[ T](\d\d:\d\d(?::\d\d(?:\.\d+)?)?))?([+-]\d\d(?::?\d\d)?|Z)?$/.exec(text) ?? [];
  if (day === undefined) return text;
  const whole = time.length === 5 ? `${time}:00` : time;
  const offset = /^[+-]\d\d$/.test(zone) ? `${zone}:00` : zone.replace(/^([+-]\d\d)(\d\d)$/, '$1:$2');
  return `${day}T${whole}${offset}`;
}

/** `2 days 01:30:00`, as PostgreSQL writes it, by ISO 8601-1 §5.5.2; anything else as it is. */
function asDuration(text: string): string {
  const [whole, days, hours, minutes, seconds] =
    /^(?:(\d+) days?)?(?:(?:^| )(\d+):(\d\d):(\d\d(?:\.\d+)?))?$/.exec(text) ?? [];
  if (whole === undefined || whole === '') return text;
  const time = hours === undefined ? '' : `T${Number(hours)}H${Number(minutes)}M${Number(seconds)}S`;
  return `P${days === undefined ? '' : `${days}D`}${time}`;
}
