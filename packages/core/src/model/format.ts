import type { Json, JsonObject } from './records.js';

/** Brings what was kept in one format into the next one. */
export type FormatStep = (kept: JsonObject) => JsonObject;

/** Something was kept by a later version of the product, whose format is not known here. */
export class UnknownFormatError extends Error {
  constructor(what: string, found: Json, newest: number) {
    super(`${what} has format ${JSON.stringify(found)}; this version reads formats 1 to ${newest}.`);
  }
}

/**
 * A form in which something is kept. Formats are numbered from 1; the member `format` of what is kept names its own.
 * What is older is upgraded when it is read, a step at a time, so that every other function sees today's form alone.
 */
export class Format {
  /** `steps[0]` leads from format 1 to format 2, and so on. */
  constructor(
    private readonly what: string,
    private readonly steps: readonly FormatStep[],
  ) {}

  get newest(): number {
    return this.steps.length + 1;
  }

  /** Today's form with its number, as it is kept. */
  stamp<T extends object>(value: T): T & { readonly format: number } {
    return { format: this.newest, ...value };
  }

  /**
   * Today's form of something kept, without its number. `unnumbered` is the format of what has no number.
   * Throws an UnknownFormatError where a later version kept it.
   */
  upgrade({ format, ...kept }: JsonObject, unnumbered = 1): JsonObject {
    const from = format ?? unnumbered;
    if (typeof from !== 'number' || !Number.isInteger(from) || from < 1 || from > this.newest)
      throw new UnknownFormatError(this.what, from, this.newest);
    return this.steps.slice(from - 1).reduce<JsonObject>((older, step) => step(older), kept);
  }
}
