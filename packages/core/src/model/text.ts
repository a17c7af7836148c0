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

/** Orders two texts by code point, not by locale. */
export function compareText(a: string, b: string): number {
  const length = Math.min(a.length, b.length);
  for (let index = 0; index < length; index++) {
    const [left, right] = [a.charCodeAt(index), b.charCodeAt(index)];
    if (left === right) continue;
    const [leftSurrogate, rightSurrogate] = [
      left >= 0xd800 && left < 0xe000,
      right >= 0xd800 && right < 0xe000,
    ];
    if (leftSurrogate !== rightSurrogate) return leftSurrogate ? 1 : -1;
    return left - right;
  }
  return a.length - b.length;
}

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
