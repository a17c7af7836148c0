import type { Counters } from '../engine/index.js';
import {
  migrateBy,
  type Decide,
  type Decision,
  type MigrationRuntime,
  type OpenStep,
} from '../migration/index.js';
import { pointedEntity, storageOf, type Json, type Model, type Row, type Steps } from '../model/index.js';
import { keyPathOf } from '../transfer/index.js';
import { highestNumbers } from './highestNumbers.js';
import { MadeRecords, missingTargets } from './madeRecords.js';

/** Records as they are under a newer model. */
export interface RecordsUnder {
  readonly rows: readonly Row[];
  readonly counters: Counters;
  /** What did not fit, and what became of it, a sentence each. */
  readonly adjusted: readonly string[];
}

/**
 * Brings records from the model they fitted to another one. Nobody is asked: what does not fit is converted where it can
 * be, else filled with what seed records have, else dropped. `null` where what there must be one of cannot be made.
 */
export function* recordsUnder(
  then: Model,
  now: Model,
  rows: readonly Row[],
  runtime: MigrationRuntime,
): Steps<RecordsUnder | null> {
  const made = new MadeRecords(now, runtime);
  const targets = missingTargets(now, rows, made);
  const all = [...rows, ...targets.rows];
  const attributes = { ...highestNumbers(then, rows), ...highestNumbers(now, targets.rows) };
  const counters = { rid: all.reduce((most, { rid }) => Math.max(most, rid), 0), attributes };
  for (const onlyDrops of [false, true]) {
    const automatic = new AutomaticDecisions(now, made, onlyDrops);
    const tried = yield* migrateBy(then, now, all, counters, automatic.decide, runtime);
    if (tried.open.length === 0) return { ...tried, adjusted: [...targets.said, ...automatic.adjusted] };
  }
  return null;
}

/** Decides what would wait for somebody where a mock is running. */
class AutomaticDecisions {
  private readonly said = new Map<string, string>();

  constructor(
    private readonly model: Model,
    private readonly made: MadeRecords,
    /** Whether records go wherever they may. */
    private readonly onlyDrops: boolean,
  ) {}

  get adjusted(): readonly string[] {
    return [...this.said.values()];
  }

  readonly decide: Decide = (step, rows) => {
    const wanted = this.wanted(step, rows);
    if (wanted === undefined) return wanted;
    const known = this.said.get(step.id);
    const rest = wanted.do === 'convert' ? wanted.otherwise : undefined;
    if (known === undefined)
      this.said.set(step.id, `${step.message.replace(/\.$/, '')}: ${meaning(step, wanted)}.`);
    // It is open again: of some of them nothing could be converted.
    else if (rest !== undefined && !known.includes(OTHERWISE))
      this.said.set(step.id, `${known.slice(0, -1)}${OTHERWISE}${meaning(step, rest)}.`);
    return wanted;
  };

  private wanted({ about, resolutions }: OpenStep, rows: ReadonlyMap<number, Row>): Decision | undefined {
    const drop: Plain = { do: 'drop' };
    if (this.onlyDrops && resolutions.some((offer) => offer.do === 'drop')) return drop;
    const convertOr = (otherwise: Plain): Decision =>
      resolutions.some((offer) => offer.do === 'convert') ? { do: 'convert', otherwise } : otherwise;
    switch (about.kind) {
      case 'lost':
      case 'circle':
        return drop;
      case 'none':
        return filled(this.made.attributes(about.storage));
      case 'slot': {
        const slot = storageOf(this.model).byName.get(about.relationship.to);
        return filled(slot === undefined ? null : this.made.attributes(slot)) ?? drop;
      }
      case 'taken':
        return convertOr(drop);
      case 'pointer':
        return convertOr(filled(this.firstKey(pointedEntity(about.relationship), rows)) ?? drop);
      case 'unset':
      case 'misfit': {
        const { attribute, storage } = about;
        const mayGo = about.kind === 'misfit' && !attribute.required && attribute !== storage.key;
        const value = mayGo ? null : (this.made.record(storage)?.[attribute.name] ?? null);
        return convertOr(filled(value) ?? drop);
      }
    }
  }

  /** The keys of the first record of an entity; `null` where it has none. */
  private firstKey(entity: string, rows: ReadonlyMap<number, Row>): Json {
    const storage = storageOf(this.model).byName.get(entity);
    if (storage === undefined) return null;
    for (const row of rows.values())
      if (row.entity === storage.entity.id) return keyPathOf(this.model, rows, storage, row);
    return null;
  }
}

type Plain = Exclude<Decision, { do: 'convert' }>;

const OTHERWISE = ', else ';

const filled = (value: Json): Plain | undefined => (value === null ? undefined : { do: 'fill', value });

/** What a decision means, with the value that all get. */
function meaning({ resolutions }: OpenStep, decision: Decision): string {
  const means = resolutions.find((offer) => offer.do === decision.do)?.means ?? '';
  if (decision.do !== 'fill') return means;
  const [only, more] = Array.isArray(decision.value) ? (decision.value as readonly Json[]) : [];
  const value = only === undefined || more !== undefined ? decision.value : only;
  return `${means} (${JSON.stringify(value)})`;
}
