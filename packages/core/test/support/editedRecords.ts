import { randomUUID } from 'node:crypto';
import type { Dataset, Draft, RowChange } from '@isomeros/core/engine';
import { runToEnd, type EntityStorage, type Json, type Model } from '@isomeros/core/model';
import {
  columnsOf,
  recordPage,
  textOfCell,
  valueOfCell,
  writeAround,
  writeThrough,
  type EditedValues,
  type EditProblem,
  type RecordEdit,
  type TableRecord,
} from '@isomeros/core/records';
import { recordTypesOf } from '@isomeros/core/transfer';
import type { SettingValues } from '@isomeros/core/arrangement';
import { arranged } from './arrangement.js';
import { NOW, TestMock } from './mock.js';

export type Way = 'through' | 'around';

/** Records that are written by edits; those that are refused leave them as they are. */
export class EditedRecords {
  /** The requests that were answered, as `PATCH /api/v1/sailings/1 200`. */
  readonly sent: string[] = [];

  constructor(readonly mock: TestMock) {}

  static of(model: Model, settings: SettingValues = {}): EditedRecords {
    return new EditedRecords(new TestMock(model, {}, arranged(settings)));
  }

  get dataset(): Dataset {
    return this.mock.dataset;
  }

  write(way: Way, ...edits: readonly RecordEdit[]): readonly EditProblem[] {
    const draft = this.mock.draft();
    const written =
      way === 'around'
        ? runToEnd(
            writeAround(this.dataset.model, draft, edits, { now: NOW, uuid: randomUUID, most: 10_000 }),
          )
        : this.written(draft, edits);
    if (!written.ok) return written.problems;
    this.dataset.apply(written.changes, draft.counters);
    return [];
  }

  private written(
    draft: Draft,
    edits: readonly RecordEdit[],
  ): { ok: true; changes: readonly RowChange[] } | { ok: false; problems: readonly EditProblem[] } {
    const problems = writeThrough(this.mock.service, draft, edits, {
      now: NOW,
      key: 'test',
      handle: (request) => {
        const handled = this.mock.handle(draft, request);
        this.sent.push(`${request.method} ${request.target} ${handled.response.status}`);
        return handled;
      },
    });
    return problems.length > 0 ? { ok: false, problems } : { ok: true, changes: draft.changes };
  }

  storage(type: string): EntityStorage {
    const storage = recordTypesOf(this.dataset.model).get(type);
    if (storage === undefined) throw new Error(`There is no ${type}.`);
    return storage;
  }

  records(type: string): readonly TableRecord[] {
    const storage = this.storage(type);
    const all = { filters: [], search: null, sort: [] };
    return recordPage(this.dataset, storage, all, { offset: 0, limit: 10_000 }).rows;
  }

  /** The first records with what is typed into each of their columns. */
  texts(type: string, number: number): Readonly<Record<string, string>> {
    const columns = columnsOf(this.dataset.model, this.storage(type));
    const cells = this.records(type).find((one) => one.number === number)?.cells ?? [];
    return Object.fromEntries(
      columns.flatMap(({ name }, at) => (cells[at] === undefined ? [] : [[name, textOfCell(cells[at])]])),
    );
  }

  values(type: string, texts: Readonly<Record<string, string>>): EditedValues {
    const storage = this.storage(type);
    return Object.fromEntries(
      Object.entries(texts).map(([name, text]): [string, Json] => [
        name,
        valueOfCell(this.dataset.model, storage, name, text),
      ]),
    );
  }

  add(type: string, texts: Readonly<Record<string, string>>): RecordEdit {
    return { kind: 'add', type, values: this.values(type, texts) };
  }

  change(
    type: string,
    { number, version }: TableRecord,
    texts: Readonly<Record<string, string>>,
  ): RecordEdit {
    return { kind: 'change', type, number, version, values: this.values(type, texts) };
  }

  remove(type: string, { number, version }: TableRecord): RecordEdit {
    return { kind: 'remove', type, number, version };
  }
}

/** The first record of a type that is as wanted. */
export function recordWith(
  edited: EditedRecords,
  type: string,
  wanted: Readonly<Record<string, string>> = {},
): TableRecord {
  const found = edited
    .records(type)
    .find(({ number }) =>
      Object.entries(wanted).every(([name, text]) => edited.texts(type, number)[name] === text),
    );
  if (found === undefined) throw new Error(`There is no such ${type}.`);
  return found;
}
