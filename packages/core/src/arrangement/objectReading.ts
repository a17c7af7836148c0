import { appendAll, isJsonObject, type Json } from '../model/index.js';
import { choiceProblem, escapePointer, unknownMembers, type ChoiceProblem } from './reading.js';

export type ObjectMembers = Readonly<Record<string, Json>>;

/** Reads what a client sent piece by piece; everything that does not fit is gathered. */
export class ObjectReading {
  readonly problems: ChoiceProblem[] = [];

  report(pointer: string, code: string, message: string): void {
    this.problems.push(choiceProblem(pointer, code, message));
  }

  list<T>(
    given: Json | undefined,
    pointer: string,
    most: number,
    read: (item: Json, at: string) => T | null,
  ): readonly T[] {
    if (!Array.isArray(given) || given.length > most) {
      this.report(pointer, 'type', `Expected an array of at most ${most} entries.`);
      return [];
    }
    return (given as readonly Json[]).flatMap((item, index) => read(item, `${pointer}/${index}`) ?? []);
  }

  /** Reports what has the id of another before it. */
  reportTwice(items: readonly { readonly id: string }[], pointer: string, what: string): void {
    const ids = new Set<string>();
    for (const [index, { id }] of items.entries()) {
      if (ids.has(id)) this.report(`${pointer}/${index}/id`, 'duplicate', `There are two ${what} ${id}.`);
      ids.add(id);
    }
  }

  option<T extends string>(given: Json | undefined, at: string, options: readonly T[]): T | null {
    const found = options.find((option) => option === given);
    if (found === undefined) this.report(at, 'options', `Expected one of ${options.join(' ')}.`);
    return found ?? null;
  }

  text(members: ObjectMembers, name: string, at: string, pattern: RegExp, expected: string): string | null {
    const value = members[name];
    if (typeof value === 'string' && value.length <= 500 && pattern.test(value)) return value;
    this.report(`${at}/${escapePointer(name)}`, 'pattern', `Expected ${expected}.`);
    return null;
  }

  object(given: Json, at: string, known: readonly string[]): ObjectMembers | null {
    if (!isJsonObject(given)) {
      this.report(at, 'type', 'Expected an object.');
      return null;
    }
    const others = Object.fromEntries(Object.entries(given).filter(([name]) => !known.includes(name)));
    appendAll(this.problems, unknownMembers(others, at, 'Here is'));
    return given;
  }
}
