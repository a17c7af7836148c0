import { bareObject, type Json } from './records.js';
import { hasLoneSurrogate } from './text.js';

export interface JsonProblem {
  readonly code: 'json.syntax' | 'json.duplicate' | 'json.depth' | 'json.precision' | 'json.surrogate';
  readonly message: string;
  readonly line: number;
  readonly column: number;
}

export type JsonResult =
  { readonly ok: true; readonly value: Json } | { readonly ok: false; readonly problem: JsonProblem };

/** The deepest nesting of arrays and objects that is read. */
export const MAX_JSON_DEPTH = 32;

export interface JsonReading {
  /** The deepest nesting that is read; 32 where it is left out. */
  readonly depth?: number;
  /** Whether numbers may lose digits. */
  readonly rounded?: boolean;
  /** Takes the offset at which each object and array begins. */
  readonly offsets?: WeakMap<object, number>;
  /** Words that stand for a value of their own, beside those of JSON. */
  readonly words?: ReadonlyMap<string, Json>;
}

/**
 * Reads a JSON text (RFC 8259) more strictly than the platform does: names in an object are unique
 * (RFC 8259 §4), strings are Unicode without unpaired surrogates (RFC 7493 §2.1), nesting is limited, and a
 * number that would lose digits is refused. Linear in the text, whatever it holds.
 */
export function readJson(text: string, reading: JsonReading = {}): JsonResult {
  const reader = new JsonReader(text, reading);
  const value = reader.whole();
  const problem = reader.problem();
  return problem === null ? { ok: true, value } : { ok: false, problem };
}

/** A piece of a JSON text that is read piece by piece. `name`: the member it is in; `null` at the root. */
export type JsonPart =
  /** An array begins, and its items follow. */
  | { readonly kind: 'list'; readonly name: string | null }
  | { readonly kind: 'item'; readonly value: Json }
  /** Anything but an array. */
  | { readonly kind: 'value'; readonly name: string | null; readonly value: Json }
  /** The text cannot be read further. */
  | { readonly kind: 'problem'; readonly problem: JsonProblem };

/** Reads a JSON text as `readJson` does, an item of its array at a time, or of the arrays in its members. */
export function* jsonParts(text: string, reading: JsonReading = {}): Generator<JsonPart> {
  const reader = new JsonReader(text, reading);
  yield* reader.parts();
  const problem = reader.problem();
  if (problem !== null) yield { kind: 'problem', problem };
}

interface Failure {
  readonly code: JsonProblem['code'];
  readonly message: string;
  readonly at: number;
}

const NUMBER = /-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?/y;
/** What may follow a backslash in a string (RFC 8259 §7). */
const ESCAPE = /["\\/bfnrt]|u[0-9a-fA-F]{4}/y;
const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const FIRST_SURROGATE = 0xd800;
const SPACE = /[ \t\r\n]*/y;
const LAST_SPACE = 0x20;
const LAST_CONTROL = 0x1f;

class JsonReader {
  private failure: Failure | null = null;
  private at = 0;

  constructor(
    private readonly text: string,
    private readonly reading: JsonReading,
  ) {}

  whole(): Json {
    this.space();
    const value = this.value(0);
    this.end();
    return value;
  }

  /** What could not be read, and where. */
  problem(): JsonProblem | null {
    if (this.failure === null) return null;
    const { code, message, at } = this.failure;
    const before = this.text.slice(0, at);
    const line = before.split('\n').length;
    const column = at - (before.lastIndexOf('\n') + 1) + 1;
    return { code, message, line, column };
  }

  *parts(): Generator<JsonPart> {
    this.space();
    if (this.text[this.at] === '{') yield* this.partsOfMembers();
    else yield* this.partsOfValue(null, 0);
    this.end();
  }

  private *partsOfMembers(): Generator<JsonPart> {
    this.at++;
    this.space();
    if (this.take('}')) return;
    const names = new Set<string>();
    do {
      this.space();
      const name = this.memberName((known) => names.has(known));
      names.add(name);
      if (this.failure === null) yield* this.partsOfValue(name, 1);
      this.space();
    } while (this.failure === null && this.take(','));
    this.expect('}', 'a comma or the end of the object');
  }

  private *partsOfValue(name: string | null, depth: number): Generator<JsonPart> {
    if (this.text[this.at] !== '[') {
      const value = this.value(depth);
      if (this.failure === null) yield { kind: 'value', name, value };
      return;
    }
    this.at++;
    yield { kind: 'list', name };
    this.space();
    if (this.take(']')) return;
    do {
      this.space();
      const value = this.value(depth + 1);
      if (this.failure === null) yield { kind: 'item', value };
      this.space();
    } while (this.failure === null && this.take(','));
    this.expect(']', 'a comma or the end of the array');
  }

  private end(): void {
    this.space();
    if (this.failure === null && this.at < this.text.length)
      this.fail('json.syntax', 'Expected the end of the text.');
  }

  /** A name no other member has, and the colon behind it. */
  private memberName(isKnown: (name: string) => boolean): string {
    const start = this.at;
    const name = this.string();
    if (this.failure !== null) return name;
    if (isKnown(name)) this.fail('json.duplicate', `The member ${JSON.stringify(name)} stands twice.`, start);
    this.space();
    this.expect(':');
    this.space();
    return name;
  }

  private value(depth: number): Json {
    if (this.failure !== null) return null;
    const own = this.reading.words === undefined ? null : this.wordOf(this.reading.words);
    if (own !== null) return own;
    switch (this.text[this.at]) {
      case '{':
        return this.object(depth + 1);
      case '[':
        return this.array(depth + 1);
      case '"':
        return this.string();
      case 't':
        return this.word('true', true);
      case 'f':
        return this.word('false', false);
      case 'n':
        return this.word('null', null);
      default:
        return this.number();
    }
  }

  /** A word that whoever reads the text knows; `null` where none stands here. */
  private wordOf(words: ReadonlyMap<string, Json>): Json {
    for (const [word, value] of words) if (this.startsWith(word)) return value;
    return null;
  }

  private startsWith(word: string): boolean {
    const isHere = this.text.startsWith(word, this.at);
    if (isHere) this.at += word.length;
    return isHere;
  }

  private object(depth: number): Json {
    const object = bareObject();
    this.reading.offsets?.set(object, this.at);
    if (!this.deeper(depth)) return object;
    this.at++;
    this.space();
    if (this.take('}')) return object;
    do {
      this.space();
      const name = this.memberName((known) => known in object);
      if (this.hasFailed()) return object;
      object[name] = this.value(depth);
      this.space();
    } while (this.failure === null && this.take(','));
    this.expect('}', 'a comma or the end of the object');
    return object;
  }

  private hasFailed(): boolean {
    return this.failure !== null;
  }

  private array(depth: number): Json {
    const items: Json[] = [];
    this.reading.offsets?.set(items, this.at);
    if (!this.deeper(depth)) return items;
    this.at++;
    this.space();
    if (this.take(']')) return items;
    do {
      this.space();
      items.push(this.value(depth));
      this.space();
    } while (this.failure === null && this.take(','));
    this.expect(']', 'a comma or the end of the array');
    return items;
  }

  /** Goes over a string once, without a pattern: one that repeats goes back as far as it came. */
  private string(): string {
    const { text } = this;
    const start = this.at;
    let isPlain = true;
    let hasSurrogates = false;
    for (let at = start + 1; text.charCodeAt(start) === QUOTE && at < text.length; at++) {
      const unit = text.charCodeAt(at);
      if (unit === QUOTE) {
        this.at = at + 1;
        const value = isPlain ? text.slice(start + 1, at) : (JSON.parse(text.slice(start, at + 1)) as string);
        if ((hasSurrogates || !isPlain) && hasLoneSurrogate(value))
          this.fail('json.surrogate', 'A string has half of a surrogate pair.', start);
        return value;
      }
      if (unit <= LAST_CONTROL) break;
      if (unit === BACKSLASH) {
        const length = this.escapeAt(at + 1);
        if (length === 0) break;
        isPlain = false;
        at += length;
      } else if (unit >= FIRST_SURROGATE) hasSurrogates = true;
    }
    this.fail('json.syntax', 'Expected a string in double quotes, with control characters escaped.');
    return '';
  }

  private escapeAt(at: number): number {
    ESCAPE.lastIndex = at;
    return ESCAPE.exec(this.text)?.[0].length ?? 0;
  }

  private number(): number {
    const start = this.at;
    const text = this.match(NUMBER);
    if (text === null || text === '') {
      this.fail(
        'json.syntax',
        this.at >= this.text.length ? 'The text ends too early.' : 'Expected a JSON value.',
      );
      return 0;
    }
    const value = Number(text);
    const shown = String(value);
    const isExact = shown === text || (Number.isFinite(value) && significand(text) === significand(shown));
    if (!isExact && this.reading.rounded !== true) {
      this.fail(
        'json.precision',
        `The number ${text.slice(0, 40)} has more digits than can be held exactly.`,
        start,
      );
    }
    return value;
  }

  private word<T extends Json>(word: string, value: T): T {
    if (!this.startsWith(word)) this.fail('json.syntax', 'Expected a JSON value.');
    return value;
  }

  private deeper(depth: number): boolean {
    const most = this.reading.depth ?? MAX_JSON_DEPTH;
    if (depth <= most) return true;
    this.fail('json.depth', `It is nested deeper than ${most}.`);
    return false;
  }

  private match(pattern: RegExp): string | null {
    pattern.lastIndex = this.at;
    const found = pattern.exec(this.text);
    if (found === null) return null;
    this.at += found[0].length;
    return found[0];
  }

  private space(): void {
    // Mostly there is none.
    if (this.text.charCodeAt(this.at) <= LAST_SPACE) this.match(SPACE);
  }

  private take(sign: string): boolean {
    if (this.failure !== null || this.text[this.at] !== sign) return false;
    this.at++;
    return true;
  }

  private expect(sign: string, what = sign): void {
    if (this.failure === null && !this.take(sign)) this.fail('json.syntax', `Expected ${what}.`);
  }

  private fail(code: Failure['code'], message: string, at = this.at): void {
    this.failure ??= { code, message, at };
  }
}

const DIGIT_ZERO = 0x30;

/** The significant digits of a number and the power of ten of the last one: the same for equal numbers. */
function significand(text: string): string {
  const match = /^-?(\d+)(?:\.(\d+))?(?:e([+-]?\d+))?$/i.exec(text);
  const fraction = match?.[2] ?? '';
  const all = ((match?.[1] ?? '') + fraction).replace(/^0+/, '');
  let end = all.length;
  while (all.charCodeAt(end - 1) === DIGIT_ZERO) end--;
  if (end === 0) return '0';
  return `${all.slice(0, end)}e${Number(match?.[3] ?? 0) - fraction.length + (all.length - end)}`;
}
