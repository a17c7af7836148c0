/** The length of a text in bytes of UTF-8. A lone surrogate counts as the replacement character. */
export function utf8Length(text: string): number {
  let bytes = 0;
  for (let index = 0; index < text.length; index++) {
    const unit = text.charCodeAt(index);
    if (unit < 0x80) bytes += 1;
    else if (unit < 0x800) bytes += 2;
    else if (unit >= 0xd800 && unit < 0xdc00 && isLowSurrogate(text.charCodeAt(index + 1))) {
      bytes += 4;
      index++;
    } else bytes += 3;
  }
  return bytes;
}

const isLowSurrogate = (unit: number): boolean => unit >= 0xdc00 && unit < 0xe000;

/** The length of a text in Unicode code points. */
export function codePointLength(text: string): number {
  let length = 0;
  for (let index = 0; index < text.length; index++) {
    if (
      text.charCodeAt(index) >= 0xd800 &&
      text.charCodeAt(index) < 0xdc00 &&
      isLowSurrogate(text.charCodeAt(index + 1))
    ) {
      index++;
    }
    length++;
  }
  return length;
}

/** Whether a text holds half of a surrogate pair, which no encoding of Unicode can carry. */
export const hasLoneSurrogate = (text: string): boolean => /\p{Surrogate}/u.test(text);

const BACKSLASH = 0x5c;

/**
 * Where a quoted text ends that begins at `start`: the index behind its closing quote, which is the character it
 * begins with; -1 when it is not closed. A backslash takes the character behind it along.
 */
export function quotedEnd(text: string, start: number): number {
  const quote = text.charCodeAt(start);
  for (let at = start + 1; at < text.length; at++) {
    const unit = text.charCodeAt(at);
    if (unit === quote) return at + 1;
    if (unit === BACKSLASH) at++;
  }
  return -1;
}

const MOST_LISTED = 30;

/** Names as a message lists them: the first ones, and how many more there are. */
export const listed = (names: readonly string[]): string =>
  names.length <= MOST_LISTED
    ? names.join(', ')
    : `${names.slice(0, MOST_LISTED).join(', ')} and ${names.length - MOST_LISTED} more`;

/** Orders two texts by code point, not by locale. */
export function compareText(a: string, b: string): number {
  const length = Math.min(a.length, b.length);
  for (let index = 0; index < length; index++) {
    const left = a.charCodeAt(index);
    const right = b.charCodeAt(index);
    if (left === right) continue;
    const leftSurrogate = left >= 0xd800 && left < 0xe000;
    const rightSurrogate = right >= 0xd800 && right < 0xe000;
    if (leftSurrogate !== rightSurrogate) return leftSurrogate ? 1 : -1;
    return left - right;
  }
  return a.length - b.length;
}

const NOT_SORTABLE = /[\ud800-\uffff]/g;

/** A text that `<` puts where code points put the given one; for most it is the same text. */
export const sortableText = (text: string): string =>
  text.replace(NOT_SORTABLE, (unit) => {
    const code = unit.charCodeAt(0);
    // Halves of a pair stand for code points behind all others.
    return String.fromCharCode(code < 0xe000 ? code + 0x2000 : code - 0x800);
  });

/** How many lines a text gained and lost against another, wherever they stand. Linear in both. */
export function changedLines(
  before: string,
  after: string,
): { readonly added: number; readonly removed: number } {
  const counts = new Map<string, number>();
  for (const line of after.split('\n')) counts.set(line, (counts.get(line) ?? 0) + 1);
  for (const line of before.split('\n')) counts.set(line, (counts.get(line) ?? 0) - 1);
  let [added, removed] = [0, 0];
  for (const count of counts.values()) {
    if (count > 0) added += count;
    else removed -= count;
  }
  return { added, removed };
}

/** Whether a text holds every word that somebody typed to find it, in whatever case; every text holds none. */
export function holdsWords(typed: string): (text: string) => boolean {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return (text) => {
    const lower = text.toLowerCase();
    return words.every((word) => lower.includes(word));
  };
}
