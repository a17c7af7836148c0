import type { RecordColumn } from '@isomeros/core/records';

const isNumber = ({ type }: RecordColumn): boolean => /^(?:integer|decimal)\b/.test(type);

export const isRole = ({ kind }: RecordColumn): boolean => kind === 'owner' || kind === 'reference';

export const cellClass = (column: RecordColumn): string =>
  !isRole(column) && isNumber(column) ? 'number' : '';

/** How a row is laid out, its head too. */
export function lineOf(columns: readonly RecordColumn[]): { gridTemplateColumns: string; minWidth: number } {
  const widths = columns.map(widthOf);
  return {
    gridTemplateColumns: widths.map((width) => `${width}px`).join(' '),
    minWidth: widths.reduce((sum, width) => sum + width, 0),
  };
}

const SHORT_TEXT = 8;

/** Wide enough for what its type usually holds, in pixels. */
function widthOf(column: RecordColumn): number {
  const { kind, type } = column;
  if (isRole(column)) return 170;
  if (/^instant/.test(type)) return 180;
  if (isNumber(column)) return kind === 'key' ? 72 : 96;
  if (/^(?:boolean|date|time)/.test(type)) return 100;
  if (/^(?:choice|duration)/.test(type)) return 110;
  const longest = Number(/^text\(\d*\.\.(\d+)/.exec(type)?.[1] ?? Infinity);
  if (longest <= SHORT_TEXT) return 84;
  return kind === 'key' ? 110 : 150;
}
