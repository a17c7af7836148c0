import type { Mock, ServedName } from '@isomeros/api';
import type { MigrationStep } from '@isomeros/core/migration';
import type { SeedPlan, Shortfall } from '@isomeros/core/seeding';
import type { ServedRelease } from '../designs/releases.service.js';
import type { DatasetRow, MockRow } from '../database/tables.js';
import type { Derivation } from '../compute/program.js';
import { ApiProblem } from '../http/problem.js';
import type { DurableDataset } from './durableDataset.js';
import type { Endpoint } from './endpoint.js';
import type { LoadMeter } from './load.js';
import type { Journal } from './journal/journal.js';
import type { ModelColumns } from '../designs/modelColumns.js';
import { isPortTaken, serviceOf } from './service.js';
import type { RecordStore } from './recordStore.js';
import {
  servedArrangements,
  servedMember,
  servedName,
  servedReleases,
  servedText,
  type Served,
} from './served.js';
import type { FaultInjector } from './faults.js';

/** A mock in memory. */
export interface LoadedMock {
  row: MockRow;
  dataset: Pick<DatasetRow, 'seed' | 'seedPlan' | 'beginsInitial'> & ModelColumns;
  readonly store: RecordStore;
  readonly records: DurableDataset;
  /** One for each arrangement, then one for each release, in their order. */
  endpoints: readonly Endpoint[];
  /** Releases that are served from the same records. */
  releases: readonly ServedRelease[];
  readonly journal: Journal;
  readonly faultInjector: FaultInjector;
  readonly load: LoadMeter;
  /** What stands against the newest model of the design; empty when it is served. */
  waiting: readonly MigrationStep[];
  /** What could not be made when it was seeded last since it is in memory. */
  shortfalls: readonly Shortfall[];
  /** What of the initial records of its design did not fit then. */
  adjustments: readonly string[];
}

const PORTS_TRIED = 200;

/** What is wanted of its seed records. */
export const seedPlanOf = ({ dataset }: LoadedMock): SeedPlan => JSON.parse(dataset.seedPlan) as SeedPlan;

export const isRunning = ({ endpoints }: LoadedMock): boolean => endpoints.some(({ running }) => running);

/** Stops every arrangement, and waits until nothing is pending. */
export async function stopAll({ endpoints, records }: LoadedMock): Promise<void> {
  await Promise.all(endpoints.map((endpoint) => endpoint.stop()));
  await records.settled();
}

/** What a mock serves under a name; the first where nothing is named. */
export function endpointOf({ endpoints }: LoadedMock, wanted: Served | null): Endpoint {
  const all = endpoints.map(({ served }) => servedText(served));
  const called = wanted === null ? all[0] : servedText(wanted);
  const endpoint = endpoints.find(({ served }) => servedText(served) === called);
  if (endpoint !== undefined) return endpoint;
  const text = `The mock serves no ${called ?? ''}; it serves ${all.join(', ')}.`;
  throw new ApiProblem('invalid', text, {
    errors: [{ pointer: `/${wanted?.kind ?? 'arrangement'}`, code: 'unknown', message: text }],
  });
}

/** Every arrangement serves what it implies from now on. */
export function serveContracts({ endpoints, row }: LoadedMock, derivations: readonly Derivation[]): void {
  for (const [index, endpoint] of endpoints.entries()) {
    const derivation = derivations[index];
    if (derivation !== undefined) endpoint.service = serviceOf(derivation, row, servedText(endpoint.served));
  }
}

/** All arrangements of a design complete its model alike, so that the first one stands for all. */
export function firstOf(derivations: readonly Derivation[]): Derivation {
  const [first] = derivations;
  if (first === undefined) throw new Error('A mock serves at least one arrangement.');
  return first;
}

/** Which ports there are to choose from. */
export interface PortChoice {
  /** The first that is tried where none was asked for. */
  readonly first: number;
  /** Those that other mocks have, or had when they were stopped. */
  readonly taken: ReadonlySet<number>;
  /** Whether another port than the one it had will do. */
  readonly mayMove: boolean;
}

/** Opens a port for each endpoint: the one it had, or, where that may be, the next free one. */
export async function listenAll(mock: LoadedMock, choice: PortChoice): Promise<void> {
  const closed = mock.endpoints.filter(({ running }) => !running);
  const before = closed.map((endpoint) => [endpoint, endpoint.port] as const);
  const opened: number[] = [];
  try {
    for (const [endpoint, wanted] of before) {
      // Only the first port was asked for by number.
      await listenOn(endpoint, wanted, opened, { ...choice, mayMove: choice.mayMove || opened.length > 0 });
      opened.push(endpoint.port);
    }
  } catch (error) {
    await Promise.all(closed.map((endpoint) => endpoint.stop()));
    for (const [endpoint, port] of before) endpoint.port = port;
    throw error;
  }
}

async function listenOn(
  endpoint: Endpoint,
  wanted: number,
  own: readonly number[],
  { first: usual, taken, mayMove }: PortChoice,
): Promise<void> {
  const first = wanted === 0 ? (own[0] ?? usual) : wanted;
  for (let port = first; port < first + PORTS_TRIED && port <= 65_535; port++) {
    // What is served beside it may be on the same port, as long as they can be told apart.
    if (mayMove && port !== wanted && taken.has(port)) continue;
    try {
      await endpoint.start(port);
      return;
    } catch (error) {
      if (!isPortTaken(error)) throw error;
      if (!mayMove)
        throw new ApiProblem('conflict', `The port ${port} is in use; choose another or leave it out.`);
    }
  }
  throw new ApiProblem('conflict', `No free port was found from ${first} on.`);
}

/** Where a mock that runs serves an arrangement or a release; `null` where it does not. */
export function addressOf({ endpoints }: LoadedMock, kind: Served['kind'], called: string): string | null {
  const endpoint = endpoints.find(
    ({ served, running }) => running && served.kind === kind && servedName(served) === called,
  );
  return endpoint === undefined ? null : urlOf(endpoint);
}

/** Where a mock serves, or served last, what is called so in its journal. */
export function originOf({ endpoints }: LoadedMock, called: string): string {
  const endpoint = endpoints.find(({ served }) => servedText(served) === called) ?? endpoints[0];
  return `http://127.0.0.1:${endpoint?.port ?? 0}`;
}

const urlOf = ({ port, contract }: Endpoint): string => `http://127.0.0.1:${port}${contract.root}`;

const KEYS_SHOWN = 3;

const obstacleText = ({ message, records, first }: MigrationStep): string => {
  const more = records > KEYS_SHOWN ? `, and ${records - KEYS_SHOWN} more` : '';
  return `${message.replace(/\.$/, '')}: ${first.slice(0, KEYS_SHOWN).join('; ')}${more}.`;
};

/** What was chosen to answer requests that name no version; `null` where the first served does. */
function unversionedOf(endpoints: LoadedMock['endpoints']): ServedName | null {
  const chosen = endpoints.find(({ unversioned }) => unversioned);
  return chosen === undefined ? null : servedMember(chosen.served);
}

export function viewOf(mock: LoadedMock): Mock {
  const { row, dataset, endpoints, records, journal, faultInjector, waiting, shortfalls, adjustments } = mock;
  const urls = (kind: Served['kind']): Readonly<Record<string, string>> =>
    Object.fromEntries(
      endpoints
        .filter(({ served }) => served.kind === kind)
        .map((endpoint) => [servedName(endpoint.served), urlOf(endpoint)]),
    );
  return {
    id: row.id,
    design: row.designId,
    arrangements: servedArrangements(endpoints),
    baseUrls: urls('arrangement'),
    releases: servedReleases(endpoints),
    releaseUrls: urls('release'),
    port: endpoints[0]?.port ?? 0,
    unversioned: unversionedOf(endpoints),
    running: isRunning(mock),
    seed: dataset.seed,
    records: records.dataset.size,
    exchanges: journal.count,
    journal: journal.state,
    servesRevision: dataset.modelRevision,
    faults: faultInjector.faults.items.length,
    obstacles: waiting.map(obstacleText),
    shortfalls,
    initialRecords: dataset.beginsInitial,
    adjustments,
  };
}
