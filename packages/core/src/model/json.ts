import { bareObject, type Json } from './records.js';

export interface JsonProblem {
  readonly code: 'json.syntax' | 'json.duplicate' | 'json.depth' | 'json.precision';
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
}

/**
 * Reads a JSON text (RFC 8259) more strictly than the platform does: names in an object are unique
 * (RFC 8259 §4), nesting is limited, and a number that would lose digits is refused.
 */
export function readJson(text: string, reading: JsonReading = {}): JsonResult {
  const reader = new JsonReader(text, reading);
  const value = reader.whole();
  if (reader.failure === null) return { ok: true, value };
  const { code, message, at } = reader.failure;
  const before = text.slice(0, at);
  const line = before.split('\n').length;
  const column = at - (before.lastIndexOf('\n') + 1) + 1;
  return { ok: false, problem: { code, message, line, column } };
}

interface Failure {
  readonly code: JsonProblem['code'];
  readonly message: string;
  readonly at: number;
}

const NUMBER = /-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?/y;
const STRING = /"(?:[^"\\\u0000-\u001f]|\\(?:["\\/bfnrt]|u[0-9a-fA-F]{4}))*"/y;
const SPACE = /[ \t\r\n]*/y;
const LAST_SPACE = 0x20;

class JsonReader {
  failure: Failure | null = null;
  private at = 0;

  constructor(
    private readonly text: string,
    private readonly reading: JsonReading,
  ) {}

  whole(): Json {
    this.space();
    const value = this.value(0);
    this.space();
    if (this.failure === null && this.at < this.text.length)
      this.fail('json.syntax', 'Expected the end of the text.');
    return value;
  }

  private value(depth: number): Json {
    if (this.failure !== null) return null;
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

  private object(depth: number): Json {
    const object = bareObject();
    this.reading.offsets?.set(object, this.at);
    if (!this.deeper(depth)) return object;
    this.at++;
    this.space();
    if (this.take('}')) return object;
    do {
      this.space();
      const start = this.at;
      const name = this.string();
      if (this.hasFailed()) return object;
      if (name in object)
        this.fail('json.duplicate', `The member ${JSON.stringify(name)} stands twice.`, start);
      this.space();
      this.expect(':');
      this.space();
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

  private string(): string {
    const text = this.match(STRING);
    if (text === null) {
      this.fail('json.syntax', 'Expected a string in double quotes, with control characters escaped.');
      return '';
    }
    return text.includes('\\') ? (JSON.parse(text) as string) : text.slice(1, -1);
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
    if (this.text.startsWith(word, this.at)) this.at += word.length;
    else this.fail('json.syntax', 'Expected a JSON value.');
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

/** The significant digits of a number and the power of ten of the last one: the same for equal numbers. */
function significand(text: string): string {
  const match = /^-?(\d+)(?:\.(\d+))?(?:e([+-]?\d+))?$/i.exec(text);
  const fraction = match?.[2] ?? '';
  const all = ((match?.[1] ?? '') + fraction).replace(/^0+/, '');
  const digits = all.replace(/0+$/, '');
  if (digits === '') return '0';
  return `${digits}e${Number(match?.[3] ?? 0) - fraction.length + (all.length - digits.length)}`;
}
