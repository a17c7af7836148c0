/** A line of separated values has at most so many columns. */
export const MOST_COLUMNS = 16_384;

/** The line breaks within the cells of a line (RFC 4180 §2, 6). */
export const newlinesIn = (cells: readonly string[]): number =>
  cells.reduce((count, cell) => count + cell.split('\n').length - 1, 0);
