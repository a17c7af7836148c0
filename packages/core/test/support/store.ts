import { Dataset, Draft } from '@isomeros/core/engine';
import { runToEnd, type Json, type Model, type Row } from '@isomeros/core/model';
import { seed } from '@isomeros/core/seeding';
import {
  csvHeader,
  csvLine,
  recordsInDocument,
  recordTypeNamed,
  readCsv,
  recordsByType,
  importRecords,
  writeRecord,
  type SourceRecords,
  type ProblemReporter,
  type ImportOutcome,
  type ImportMode,
} from '@isomeros/core/transfer';
import { NOW } from './mock.js';

const UUID = '0b1c2d3e-4f50-4a6b-8c7d-8e9fa0b1c2d3';

/** Records of a model, written out and taken in. */
export class Store {
  readonly dataset: Dataset;

  constructor(
    readonly model: Model,
    rows: readonly Row[] = [],
    counters: Readonly<Record<string, number>> = {},
  ) {
    this.dataset = new Dataset(model, rows, { rid: rows.length, attributes: counters });
  }

  static seeded(model: Model, number = 42): Store {
    const { rows, counters } = seed(model, { seed: number, counts: {}, now: NOW });
    return new Store(model, rows, counters);
  }

  json(secrets = true): Record<string, Json[]> {
    return Object.fromEntries(
      [...recordsByType(this.model, this.dataset.everything())].map(([storage, rows]) => [
        storage.entity.name,
        rows.map((row) => writeRecord(this.model, this.dataset, storage, row, { secrets })),
      ]),
    );
  }

  csv(kind: string, secrets = true): string {
    const storage = this.kind(kind);
    const records = this.json(secrets)[kind] ?? [];
    return [
      csvHeader(this.model, storage, secrets),
      ...records.map((record) => csvLine(this.model, storage, record as Record<string, Json>, secrets)),
    ].join('');
  }

  kind(name: string): NonNullable<ReturnType<typeof recordTypeNamed>> {
    const storage = recordTypeNamed(this.model, name, '', () => undefined);
    if (storage === null) throw new Error(`No kind ${name}.`);
    return storage;
  }

  takeJson(document: Json, mode: ImportMode = 'merge'): ImportOutcome {
    return this.takeText(JSON.stringify(document), mode);
  }

  takeText(text: string, mode: ImportMode = 'merge'): ImportOutcome {
    return this.take((report) => recordsInDocument(this.model, text, report), mode);
  }

  takeCsv(kind: string, text: string, mode: ImportMode = 'merge'): ImportOutcome {
    return this.take((report) => readCsv(this.model, this.kind(kind), text, report), mode);
  }

  private take(given: (report: ProblemReporter) => Iterable<SourceRecords>, mode: ImportMode): ImportOutcome {
    const draft = new Draft(this.dataset);
    const options = { mode, now: NOW, uuid: () => UUID, most: 1_000 };
    const taken = runToEnd(importRecords(this.model, draft, given, options));
    if (taken.ok) this.dataset.apply(taken.changes, draft.counters);
    return taken;
  }
}

/** What stands against taking in, with its places. */
export const messages = (taken: ImportOutcome): readonly string[] =>
  taken.ok
    ? []
    : taken.problems.map((problem) => `${'pointer' in problem ? problem.pointer : ''} ${problem.message}`);
