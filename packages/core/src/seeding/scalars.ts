import { codePointLength, kebabCase, words, type ScalarType } from '../model/index.js';
import { sampleText } from './pattern.js';
import { randomUuid, type Random } from './random.js';
import { ADJECTIVES, FAMILY_NAMES, GIVEN_NAMES, NOUNS, PLACE_NAMES, SENTENCES } from './words.js';

/** What a seeded value is for: its own name and the name of what has it. */
export interface SeedSubject {
  readonly name: string;
  readonly of: string;
  /** How many records of the kind came before: makes values differ where words run out. */
  readonly ordinal: number;
  /** How often a value was refused already because it was taken. */
  readonly attempt: number;
}

const DAY = 86_400_000;

/** A value that fits the type, and as far as its name tells, the meaning. `null` when none was found. */
export function seedScalar(
  type: ScalarType,
  subject: SeedSubject,
  random: Random,
  now: number,
): string | number | boolean | null {
  switch (type.kind) {
    case 'text':
      return seedText(type, subject, random);
    case 'integer':
      return seedInteger(type.min, type.max, subject, random);
    case 'decimal':
      return seedDecimal(type, random);
    case 'boolean':
      return random.chance(0.5);
    case 'date':
      return dateNear(subject.name, now, random).toISOString().slice(0, 10);
    case 'time':
      return `${two(random.integer(6, 21))}:${two(5 * random.integer(0, 11))}:00`;
    case 'instant':
      return instantNear(subject.name, now, random);
    case 'duration':
      return `PT${5 * random.integer(3, 60)}M`;
    case 'uuid':
      return randomUuid(() => random.next());
    case 'email':
      return seedEmail(subject, random);
    case 'uri':
      return `https://example.net/${kebabCase(subject.of)}/${subject.ordinal + 1}${subject.attempt === 0 ? '' : `-${subject.attempt}`}`;
    case 'choice':
      return random.pick(type.options);
  }
}

const two = (value: number): string => String(value).padStart(2, '0');

function seedInteger(min: number | null, max: number | null, subject: SeedSubject, random: Random): number {
  const year = words(subject.name).includes('year');
  const low = Math.ceil(min ?? Math.min(max ?? Infinity, year ? 1995 : 1));
  const usual = year ? 2026 : low + 99 + subject.ordinal;
  return random.integer(low, Math.floor(Math.max(low, Math.min(max ?? usual, usual + 50 * subject.attempt))));
}

/** A number in the range, with two digits where no scale is said; more where the range has no such number. */
function seedDecimal(type: Extract<ScalarType, { kind: 'decimal' }>, random: Random): number {
  const { min, max, scale } = type;
  const isBelowZero = type.exclusiveMax === true && max !== null && max <= 0;
  const low = min ?? (isBelowZero ? max - 100 : Math.min(max ?? 0, 0));
  const high = Math.max(low, Math.min(max ?? low + 100, low + 1_000));
  const unit = 10 ** Math.min(scale ?? 2, 6);
  const from = Math.ceil(low * unit) + (type.exclusiveMin === true && Number.isInteger(low * unit) ? 1 : 0);
  const to = Math.floor(high * unit) - (type.exclusiveMax === true && Number.isInteger(high * unit) ? 1 : 0);
  if (to >= from) return random.integer(from, to) / unit;
  return type.exclusiveMin === true || type.exclusiveMax === true ? (low + high) / 2 : low;
}

function dateNear(name: string, now: number, random: Random): Date {
  const named = new Set(words(name));
  const has = (...candidates: string[]): boolean => candidates.some((word) => named.has(word));
  if (has('birth', 'born', 'birthday')) return new Date(now - random.integer(18 * 365, 70 * 365) * DAY);
  if (has('opened', 'founded', 'built', 'since', 'joined'))
    return new Date(now - random.integer(200, 9_000) * DAY);
  if (has('until', 'expires', 'valid', 'due', 'end', 'ends'))
    return new Date(now + random.integer(20, 700) * DAY);
  return new Date(now + random.integer(-40, 40) * DAY);
}

function instantNear(name: string, now: number, random: Random): string {
  const past = words(name).some((word) =>
    /^(created|changed|booked|sent|published|updated|posted)$/.test(word),
  );
  const minutes = past ? -random.integer(10, 40_000) : random.integer(-4_000, 20_000);
  const step = 5 * 60_000;
  return new Date(Math.floor((now + minutes * 60_000) / step) * step).toISOString().replace('.000Z', 'Z');
}

function seedEmail(subject: SeedSubject, random: Random): string {
  const person = `${random.pick(GIVEN_NAMES)}.${random.pick(FAMILY_NAMES)}`.toLowerCase();
  const many = subject.ordinal >= 40 || subject.attempt > 3;
  return `${person}${many ? subject.ordinal + subject.attempt : ''}@example.net`;
}

function seedText(
  type: Extract<ScalarType, { kind: 'text' }>,
  subject: SeedSubject,
  random: Random,
): string | null {
  const min = type.min ?? 0;
  const max = type.max ?? 200;
  if (type.pattern !== null) return sampleText(type.pattern, min, max, random);
  const text = wordsFor(subject, max, random);
  const suffix = subject.attempt > 2 ? ` ${subject.ordinal + subject.attempt}` : '';
  return fit(text + suffix, suffix, min, max, random);
}

/** Cuts or fills a text to its length; a distinguishing suffix survives the cut. */
function fit(text: string, suffix: string, min: number, max: number, random: Random): string {
  const signs = [...text];
  let fitted =
    signs.length <= max
      ? text
      : signs
          .slice(0, Math.max(0, max - suffix.length))
          .join('')
          .trimEnd();
  if (signs.length > max) fitted = [...(fitted + suffix)].slice(-max).join('');
  while (codePointLength(fitted) < min) fitted += String(random.integer(0, 9));
  return max === 0 ? '' : fitted;
}

const PERSON =
  /^(person|people|crew|member|passenger|user|customer|author|guest|driver|contact|owner|employee|student|teacher|borrower|patient)$/;
const PLACE = /^(harbour|harbor|port|city|town|place|station|site|island|region)$/;

function wordsFor(subject: SeedSubject, max: number, random: Random): string {
  const own = words(subject.name);
  const last = own.at(-1) ?? '';
  const of = words(subject.of);
  if (/^(given|first|forename)$/.test(own[0] ?? '')) return random.pick(GIVEN_NAMES);
  if (/^(family|last|surname)$/.test(own[0] ?? '')) return random.pick(FAMILY_NAMES);
  if (last === 'name' || last === 'title') {
    if (of.some((word) => PERSON.test(word)))
      return `${random.pick(GIVEN_NAMES)} ${random.pick(FAMILY_NAMES)}`;
    if (of.some((word) => PLACE.test(word))) return random.pick(PLACE_NAMES);
    if (of.includes('route')) return `${random.pick(PLACE_NAMES)} – ${random.pick(PLACE_NAMES)}`;
    return `${random.pick(ADJECTIVES)} ${random.pick(NOUNS)}`;
  }
  if (/^(pin|password|secret|token)$/.test(last)) return digits(Math.min(max, 6), random);
  if (/^(code|number|reference|sku|serial|plate)$/.test(last)) {
    return letters(2, random) + digits(Math.max(0, Math.min(max - 2, 4)), random);
  }
  if (/^(label|seat|berth|room)$/.test(last)) return letters(1, random) + String(random.integer(1, 99));
  if (/^(phone|mobile|telephone)$/.test(last)) return `+99 555 ${digits(6, random)}`;
  if (
    max >= 30 &&
    /^(description|note|notes|text|body|summary|message|remark|comment|content|reason)$/.test(last)
  ) {
    return random.pick(SENTENCES);
  }
  return max < 12 ? random.pick(NOUNS) : `${random.pick(ADJECTIVES)} ${random.pick(NOUNS).toLowerCase()}`;
}

const digits = (length: number, random: Random): string =>
  Array.from({ length }, () => String(random.integer(0, 9))).join('');
const letters = (length: number, random: Random): string =>
  Array.from({ length }, () => String.fromCharCode(65 + random.integer(0, 25))).join('');
