import { memoize, type EntityStorage, type Model } from '../model/index.js';
import { printType } from '../notation/index.js';
import { pointersOf } from '../transfer/index.js';

/** What a table of records shows of each. */
export interface RecordColumn {
  /** The name of an attribute or a to-one role, in the model. */
  readonly name: string;
  readonly kind: 'key' | 'attribute' | 'computed' | 'owner' | 'reference';
  /** The type in the notation, or the entity that is pointed at. */
  readonly type: string;
  /** Whether values are never returned, and are not shown here either. */
  readonly isSecret: boolean;
  /** Whether records can be sorted by it. */
  readonly isSorted: boolean;
}

const STRUCTURED: ReadonlySet<string> = new Set(['json', 'value', 'list']);

const columns = memoize((model: Model) =>
  memoize((storage: EntityStorage): readonly RecordColumn[] => {
    const { key, singleton, owner, entity } = storage;
    const attributes = [...storage.attributes, ...storage.computed].map((attribute): RecordColumn => {
      const { name, type, writeOnly, computed } = attribute;
      const isKey = attribute === key && !singleton;
      return {
        name,
        kind: isKey ? 'key' : computed === null ? 'attribute' : 'computed',
        type: printType(type),
        isSecret: writeOnly,
        isSorted: !writeOnly && !STRUCTURED.has(type.kind),
      };
    });
    const place = (name: string): number => entity.attributes.findIndex((one) => one.name === name);
    const ordered = attributes.sort(
      (one, other) =>
        Number(other.kind === 'key') - Number(one.kind === 'key') || place(one.name) - place(other.name),
    );
    const pointers = pointersOf(model, storage).map(({ name, id, target }): RecordColumn => ({
      name,
      kind: id === owner?.id ? 'owner' : 'reference',
      type: target.entity.name,
      isSecret: false,
      isSorted: true,
    }));
    return [...ordered, ...pointers];
  }),
);

/** The columns of a kind of record: its key, attributes as they are declared, then what it points at. */
export const columnsOf = (model: Model, storage: EntityStorage): readonly RecordColumn[] =>
  columns(model)(storage);
