import { capital, type Attribute, type ImplicitId, type UniqueRule } from '../model/index.js';
import type { TextRange } from './diagnostics.js';
import type { LineReader } from './lineReader.js';
import { writeInstead } from './otherWords.js';

/** An entity or a value while its lines are read. */
export interface Block {
  readonly kind: 'entity' | 'value';
  readonly id: string;
  readonly name: string;
  readonly description: string | null;
  readonly comments: readonly string[];
  readonly attributes: Attribute[];
  readonly uniques: UniqueRule[];
  readonly implicitId: ImplicitId;
}

export const emptyBlock = (
  kind: Block['kind'],
  id: string,
  name: string,
  description: string | null,
  comments: readonly string[],
): Block => ({ kind, id, name, description, comments, attributes: [], uniques: [], implicitId: 'integer' });

export function reportBlockCase(
  reader: LineReader,
  kind: Block['kind'],
  name: string,
  place: TextRange,
): void {
  const words = name.split(/[_-]+/).filter((part) => part !== '');
  const better = words.map(capital).join('');
  const fixes = /^[A-Z]/.test(better) ? writeInstead(better, place) : [];
  const kinds = kind === 'entity' ? 'entities' : 'values';
  reader.report('name.case', `Names of ${kinds} are in PascalCase; ${name} is not.`, place, fixes);
}
