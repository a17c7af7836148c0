/** Lines of a source, from 1, both ends included. */
export interface SourceLines {
  readonly line: number;
  readonly endLine: number;
}

/** Finds the line of an offset in a text, from 1. */
export class LineTable {
  private readonly starts: number[] = [0];

  constructor(text: string) {
    for (let at = text.indexOf('\n'); at !== -1; at = text.indexOf('\n', at + 1)) this.starts.push(at + 1);
  }

  lineAt(offset: number): number {
    let [low, high] = [0, this.starts.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.starts[middle] ?? 0) <= offset) low = middle;
      else high = middle - 1;
    }
    return low + 1;
  }

  /** The one line of an offset. */
  at(offset: number | undefined): SourceLines {
    const line = this.lineAt(offset ?? 0);
    return { line, endLine: line };
  }
}
