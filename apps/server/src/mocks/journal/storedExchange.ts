import type { Exchange, ExchangeSummary, RecordVersion } from '@isomeros/api';
import type { Contract } from '@isomeros/core/contract';
import {
  cascadeOf,
  contractDigest,
  describeChange,
  narrowingOf,
  nearMisses,
  versionOf,
  type KeptChange,
} from '@isomeros/core/engine';
import {
  exchangeSummary,
  requestMessage,
  responseMessage,
  timedTrace,
  type KeptExchange,
} from './keptExchange.js';

/** What a write made of one record. */
interface StoredVersion extends Pick<RecordVersion, 'version' | 'changed'> {
  readonly rid: number;
}

/** An exchange as the database keeps it: all that is told of it but what its contract tells. */
export interface StoredExchange extends Omit<Exchange, 'narrowing' | 'nearMisses' | 'pinned'> {
  /** The digest of the contract it was matched by. */
  readonly contract: string;
  readonly versions: readonly StoredVersion[];
}

/** What a list tells of it, and the numbers of the records that it touched. */
export interface StoredSummary extends Omit<ExchangeSummary, 'pinned'> {
  readonly rids: readonly number[];
}

/** Of one write so many records are described; the others are counted. */
const MOST_DESCRIBED = 1_000;

const rowOf = ({ before, after }: KeptChange): KeptRow | undefined => (after ?? before)?.row;
type KeptRow = NonNullable<KeptChange['after']>['row'];

export function summaryToStore(kept: KeptExchange): StoredSummary {
  const rids = new Set(kept.records.slice(0, MOST_DESCRIBED).flatMap((change) => rowOf(change)?.rid ?? []));
  return { ...exchangeSummary(kept), rids: [...rids] };
}

export function exchangeToStore(kept: KeptExchange): StoredExchange {
  const described = kept.records.slice(0, MOST_DESCRIBED);
  return {
    ...exchangeSummary(kept),
    request: requestMessage(kept),
    response: responseMessage(kept),
    page: kept.isPage,
    trace: timedTrace(kept),
    records: described.map(describeChange),
    removed: cascadeOf(kept.records),
    contract: contractDigest(kept.contract),
    versions: described.flatMap((change): StoredVersion[] => {
      const rid = rowOf(change)?.rid;
      const found = rid === undefined ? null : versionOf(change, rid);
      return rid === undefined || found === null ? [] : [{ rid, ...found }];
    }),
  };
}

/** An exchange as it is told. `contract`: that by which it was matched, where it is still known. */
export function describeExchange(
  stored: StoredExchange,
  contract: Contract | undefined,
  pinned: boolean,
): Exchange {
  const { contract: digest, versions: _versions, ...told } = stored;
  const isKnown = contract !== undefined && contractDigest(contract) === digest;
  return {
    ...told,
    pinned,
    narrowing: isKnown ? narrowingOf(contract, told) : [],
    nearMisses: isKnown ? nearMisses(contract, told) : [],
  };
}

/** What an exchange in memory made of one record. */
export const versionsKept = (
  { number, at, operation, records }: KeptExchange,
  rid: number,
): readonly RecordVersion[] =>
  records.flatMap((change) => {
    const found = versionOf(change, rid);
    return found === null ? [] : [{ ...found, exchange: number, at: new Date(at).toISOString(), operation }];
  });

/** What an exchange made of one record. */
export const versionsIn = (
  { number, at, operation, versions }: StoredExchange,
  wanted: number,
): readonly RecordVersion[] =>
  versions.flatMap(({ rid, ...version }) =>
    rid === wanted ? [{ ...version, exchange: number, at, operation }] : [],
  );

/** What a list tells of an exchange that is stored whole. */
export function summaryIn(stored: StoredExchange): StoredSummary {
  const { request: _1, response: _2, page: _3, trace: _4, contract: _5, ...listed } = stored;
  const { records: _6, removed: _7, versions, ...summary } = listed;
  return { ...summary, rids: versions.map(({ rid }) => rid) };
}
