import type { SeedPreview } from '@isomeros/core/records';
import type { NamedExample } from '@isomeros/core/arrangement';
import {
  methodOf,
  pathOf,
  type AnswerOf,
  type BodyOf,
  type Design,
  type DesignSummary,
  type Exchange,
  type ExchangeSummary,
  type ExchangesQuery,
  type Faults,
  type ImportResult,
  type InspectedRecord,
  type LiveSchema,
  type LoadSecond,
  type LiveSchemaAddress,
  type MigrationView,
  type Mock,
  type MockCredential,
  type NewDesign,
  type NewEdits,
  type NewMock,
  type PathParameters,
  type ProblemBody,
  type QueryOf,
  type RecordTable,
  type RecordType,
  type Publication,
  type Release,
  type ReleaseEnd,
  type Revision,
  type RevisionSummary,
  type RouteKey,
  type RunningIntake,
  type Sample,
  type SeedSettings,
  type SentMessage,
  type ServedName,
  type Snapshot,
  type TableQuery,
  type WrittenEdits,
} from '@isomeros/api';
import type { Choices } from '@isomeros/core/arrangement';
import type { Decision } from '@isomeros/core/migration';
import type { ImportMode } from '@isomeros/core/transfer';

/** Thrown where the server refuses or cannot be reached; `problem.detail` is fit to show. */
export class ApiError extends Error {
  constructor(readonly problem: ProblemBody) {
    super(problem.detail);
  }
}

/** What something that went wrong otherwise is called. */
const UNEXPECTED: ProblemBody = {
  type: 'about:blank',
  title: 'Something went wrong',
  status: 0,
  detail: 'Something went wrong.',
};

const isProblem = (error: unknown): error is ProblemBody =>
  typeof error === 'object' &&
  error !== null &&
  'status' in error &&
  typeof error.status === 'number' &&
  'detail' in error &&
  typeof error.detail === 'string';

/** What the store says of an operation that was not done, as a problem. */
export function unexpected(error: unknown): ProblemBody {
  if (isProblem(error)) return error;
  const hasMessage = typeof error === 'object' && error !== null && 'message' in error;
  return hasMessage && typeof error.message === 'string'
    ? { ...UNEXPECTED, detail: error.message }
    : UNEXPECTED;
}

/** Why what was asked of the store is not there, where it is not. */
export const problemOf = (error: unknown): ProblemBody | null =>
  error === undefined ? null : unexpected(error);

/** Why the server refused, to be shown; anything else that went wrong goes on. */
export function refusalOf(error: unknown): ProblemBody {
  if (error instanceof ApiError) return error.problem;
  if (isProblem(error)) return error;
  throw error;
}

/** Whether something ended because it was cancelled. */
export const isAborted = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && 'name' in error && error.name === 'AbortError';

export const refusalText = (error: unknown): string => refusalOf(error).detail;

const UNREACHABLE: ProblemBody = {
  type: 'about:blank',
  title: 'Server not reachable',
  status: 0,
  detail: 'The server does not answer. Is it still running?',
};

/** What an operation is given. */
interface Given<Key extends RouteKey> {
  readonly query?: QueryOf<Key>;
  readonly body?: BodyOf<Key>;
  /** A body that is no JSON, or is JSON already. */
  readonly text?: { readonly type: string; readonly content: string };
  /** The revision that was read. */
  readonly revision?: number;
  readonly signal?: AbortSignal;
}

async function ask<Key extends RouteKey>(
  key: Key,
  path: PathParameters<Key>,
  { query, body, text, revision, signal }: Given<Key> = {},
): Promise<Response> {
  const sent =
    text ?? (body === undefined ? null : { type: 'application/json', content: JSON.stringify(body) });
  const address = pathOf(key, path, (query ?? {}) as Readonly<Record<string, string | number | undefined>>);
  let response: Response;
  try {
    response = await fetch(address, {
      method: methodOf(key),
      headers: {
        ...(sent === null ? {} : { 'Content-Type': sent.type }),
        ...(revision === undefined ? {} : { 'If-Match': `"${revision}"` }),
      },
      body: sent === null ? null : sent.content,
      signal: signal ?? null,
    });
  } catch (error) {
    if (error instanceof TypeError) throw new ApiError(UNREACHABLE);
    throw error;
  }
  if (response.ok) return response;
  const isProblem = response.headers.get('content-type')?.startsWith('application/problem+json') === true;
  const unknown = {
    ...UNREACHABLE,
    title: 'Unexpected answer',
    status: response.status,
    detail: `The server answered ${response.status}.`,
  };
  throw new ApiError(isProblem ? ((await response.json()) as ProblemBody) : unknown);
}

/** Calls an operation of the interface; what it answers as JSON. */
const call = async <Key extends RouteKey>(
  key: Key,
  path: PathParameters<Key>,
  given: Given<Key> = {},
): Promise<AnswerOf<Key>> => (await (await ask(key, path, given)).json()) as AnswerOf<Key>;

/** The cursor of the next page, from the Link header (RFC 8288) of this one. */
function nextCursor(response: Response): string | null {
  const next = /[?&]cursor=([^&>]+)/.exec(response.headers.get('link') ?? '')?.[1];
  return next === undefined ? null : decodeURIComponent(next);
}

/** What can be done with a mock as a whole. */
export type MockAction = 'start' | 'stop' | 'reset' | 'undo';

/** Records to be taken in, and how. */
export interface Import {
  readonly text: string;
  readonly isCsv: boolean;
  readonly mode: ImportMode;
  /** Only told what would become of them. */
  readonly check: boolean;
}

/** A change of a design as it was read at a revision. */
export interface OfRevision {
  readonly id: string;
  readonly revision: number;
}

export interface RevisionList {
  readonly items: readonly RevisionSummary[];
  /** The cursor of the next page. */
  readonly next: string | null;
}

/** So many designs are listed at once. */
export const MOST_LISTED = 200;

export const api = {
  /** The latest, at most `MOST_LISTED`, of which the name holds a text. */
  listDesigns: async (name: string): Promise<readonly DesignSummary[]> =>
    (await call('GET /api/designs', {}, { query: { limit: MOST_LISTED, ...(name === '' ? {} : { name }) } }))
      .items,
  listSamples: async (): Promise<readonly Sample[]> => (await call('GET /api/samples', {})).items,
  readDesign: (id: string): Promise<Design> => call('GET /api/designs/{id}', { id }),
  createDesign: (wanted: NewDesign): Promise<Design> => call('POST /api/designs', {}, { body: wanted }),
  beginIntake: (wanted: NewDesign): Promise<RunningIntake> => call('POST /api/intakes', {}, { body: wanted }),
  readIntake: (id: string): Promise<RunningIntake> => call('GET /api/intakes/{id}', { id }),
  removeIntake: async (id: string): Promise<void> => {
    await ask('DELETE /api/intakes/{id}', { id });
  },
  removeInitialRecords: async (id: string): Promise<void> => {
    await ask('DELETE /api/designs/{id}/initial-records', { id });
  },
  copyDesign: (id: string, name: string): Promise<Design> =>
    call('POST /api/designs/{id}/copy', { id }, { body: { name } }),
  renameDesign: (id: string, name: string, revision: number): Promise<Design> =>
    call('PUT /api/designs/{id}/name', { id }, { body: { name }, revision }),
  restoreDesign: (id: string): Promise<Design> => call('POST /api/designs/{id}/restore', { id }),
  saveChoices: (id: string, choices: Choices, revision: number): Promise<Design> =>
    call('PUT /api/designs/{id}/choices', { id }, { body: choices, revision }),
  renameArrangement: (id: string, from: string, to: string, revision: number): Promise<Design> =>
    call(
      'PUT /api/designs/{id}/arrangements/{name}/name',
      { id, name: from },
      { body: { name: to }, revision },
    ),
  removeArrangement: (id: string, name: string, revision: number): Promise<Design> =>
    call('DELETE /api/designs/{id}/arrangements/{name}', { id, name }, { revision }),
  answerRename: (
    id: string,
    rename: BodyOf<'POST /api/designs/{id}/renames'>,
    revision: number,
  ): Promise<Design> => call('POST /api/designs/{id}/renames', { id }, { body: rename, revision }),
  /** Revisions before a cursor that an earlier page gave, latest first. */
  listRevisions: async (id: string, cursor: string | null): Promise<RevisionList> => {
    const query = { limit: 200, ...(cursor === null ? {} : { cursor }) };
    const response = await ask('GET /api/designs/{id}/revisions', { id }, { query });
    const { items } = (await response.json()) as AnswerOf<'GET /api/designs/{id}/revisions'>;
    return { items, next: nextCursor(response) };
  },
  readRevision: (id: string, number: number): Promise<Revision> =>
    call('GET /api/designs/{id}/revisions/{number}', { id, number }),
  restoreRevision: (id: string, number: number, revision: number): Promise<Design> =>
    call('POST /api/designs/{id}/revisions/{number}/restore', { id, number }, { revision }),
  listReleases: async (id: string): Promise<readonly Release[]> =>
    (await call('GET /api/designs/{id}/releases', { id })).items,
  makeRelease: (id: string, label: string, arrangement: string): Promise<Release> =>
    call('POST /api/designs/{id}/releases', { id }, { body: { label, arrangement } }),
  listPublications: async (id: string, name: string): Promise<readonly Publication[]> =>
    (await call('GET /api/designs/{id}/arrangements/{name}/publications', { id, name })).items,
  listReleasePublications: async (id: string, label: string): Promise<readonly Publication[]> =>
    (await call('GET /api/designs/{id}/releases/{label}/publications', { id, label })).items,
  /** The contract of a release, as JSON. */
  readReleaseContract: async (id: string, label: string): Promise<string> =>
    (await ask('GET /api/designs/{id}/releases/{label}/contract', { id, label })).text(),
  markRelease: (id: string, label: string, end: ReleaseEnd | null): Promise<Release> =>
    end === null
      ? call('DELETE /api/designs/{id}/releases/{label}/end', { id, label })
      : call('PUT /api/designs/{id}/releases/{label}/end', { id, label }, { body: end }),
  removeRelease: async (id: string, label: string): Promise<void> => {
    await ask('DELETE /api/designs/{id}/releases/{label}', { id, label });
  },
  readLiveSchema: (address: LiveSchemaAddress, signal: AbortSignal): Promise<LiveSchema> =>
    call('POST /api/live-schemas', {}, { body: address, signal }),
  saveModel: (id: string, text: string, revision: number): Promise<Design> =>
    call('PUT /api/designs/{id}/model', { id }, { body: { text }, revision }),
  removeDesign: async (id: string): Promise<void> => {
    await ask('DELETE /api/designs/{id}', { id });
  },
  listMocks: async (): Promise<readonly Mock[]> => (await call('GET /api/mocks', {})).items,
  createMock: (wanted: NewMock): Promise<Mock> => call('POST /api/mocks', {}, { body: wanted }),
  actOnMock: (id: string, action: MockAction, signal: AbortSignal): Promise<Mock> =>
    call(`POST /api/mocks/{id}/${action}`, { id }, { signal }),
  answerUnversioned: (id: string, served: ServedName): Promise<Mock> =>
    call('PUT /api/mocks/{id}/unversioned', { id }, { body: served }),
  listSnapshots: async (id: string): Promise<readonly Snapshot[]> =>
    (await call('GET /api/mocks/{id}/snapshots', { id })).items,
  takeSnapshot: (id: string, name: string, signal: AbortSignal): Promise<Snapshot> =>
    call('POST /api/mocks/{id}/snapshots', { id }, { body: { name }, signal }),
  restoreSnapshot: (id: string, name: string, signal: AbortSignal): Promise<Mock> =>
    call('POST /api/mocks/{id}/snapshots/{name}/restore', { id, name }, { signal }),
  removeSnapshot: async (id: string, name: string): Promise<void> => {
    await ask('DELETE /api/mocks/{id}/snapshots/{name}', { id, name });
  },
  listRecordTypes: async (id: string): Promise<readonly RecordType[]> =>
    (await call('GET /api/mocks/{id}/record-types', { id })).items,
  readRecordTable: (
    id: string,
    type: string,
    { find, sort, ...page }: Required<TableQuery>,
  ): Promise<RecordTable> =>
    call(
      'GET /api/mocks/{id}/record-types/{type}/table',
      { id, type },
      { query: { ...page, ...(find === '' ? {} : { find }), ...(sort === '' ? {} : { sort }) } },
    ),
  readRecord: (id: string, type: string, number: number): Promise<InspectedRecord> =>
    call('GET /api/mocks/{id}/record-types/{type}/table/{number}', { id, type, number: String(number) }),
  writeEdits: (id: string, edits: NewEdits): Promise<WrittenEdits> =>
    call('POST /api/mocks/{id}/record-edits', { id }, { body: edits }),
  /** Where the records of a mock are to be had, of one type or of all. */
  recordsAddress: (id: string, type: string | null, query: Readonly<Record<string, string>>): string =>
    type === null
      ? pathOf('GET /api/mocks/{id}/records', { id }, query)
      : pathOf('GET /api/mocks/{id}/records/{type}', { id, type }, query),
  importRecords: async (
    id: string,
    type: string | null,
    given: Import,
    signal: AbortSignal,
  ): Promise<ImportResult> => {
    const { isCsv, mode, check } = given;
    const query = { mode, ...(check ? { check: 'only' as const } : {}) };
    const text = { type: isCsv ? 'text/csv' : 'application/json', content: given.text };
    return type === null
      ? call('POST /api/mocks/{id}/records', { id }, { query, text, signal })
      : call('POST /api/mocks/{id}/records/{type}', { id, type }, { query, text, signal });
  },
  listCredentials: async (id: string): Promise<readonly MockCredential[]> =>
    (await call('GET /api/mocks/{id}/credentials', { id })).items,
  readMigration: (id: string): Promise<MigrationView> => call('GET /api/mocks/{id}/migration', { id }),
  migrate: (id: string, decisions: Readonly<Record<string, Decision>>, signal: AbortSignal): Promise<Mock> =>
    call('POST /api/mocks/{id}/migration', { id }, { body: { decisions }, signal }),
  readSeedSettings: (id: string): Promise<SeedSettings> => call('GET /api/mocks/{id}/seed-plan', { id }),
  saveSeedSettings: (id: string, settings: SeedSettings): Promise<SeedSettings> =>
    call('PUT /api/mocks/{id}/seed-plan', { id }, { body: settings }),
  previewSeed: (id: string, settings: SeedSettings, signal: AbortSignal): Promise<SeedPreview> =>
    call('POST /api/mocks/{id}/seed-preview', { id }, { body: settings, signal }),
  readFaults: (id: string): Promise<Faults> => call('GET /api/mocks/{id}/faults', { id }),
  saveFaults: (id: string, faults: Faults): Promise<Faults> =>
    call('PUT /api/mocks/{id}/faults', { id }, { body: faults }),
  removeMock: async (id: string): Promise<void> => {
    await ask('DELETE /api/mocks/{id}', { id });
  },
  sendMessage: (id: string, message: string, to: ServedName): Promise<SentMessage> =>
    call('POST /api/mocks/{id}/messages', { id }, { body: { message, ...to } }),
  listExchanges: async (id: string): Promise<readonly ExchangeSummary[]> =>
    [...(await call('GET /api/mocks/{id}/exchanges', { id }, { query: { limit: 200 } })).items].reverse(),
  /** Those that are looked for, newest first, and where they go on. */
  findExchanges: async (
    id: string,
    looked: ExchangesQuery,
    cursor: string | null,
  ): Promise<{ readonly items: readonly ExchangeSummary[]; readonly next: string | null }> => {
    const query = { ...looked, limit: MOST_LISTED, ...(cursor === null ? {} : { cursor }) };
    const response = await ask('GET /api/mocks/{id}/exchanges', { id }, { query });
    const { items } = (await response.json()) as AnswerOf<'GET /api/mocks/{id}/exchanges'>;
    return { items, next: nextCursor(response) };
  },
  clearExchanges: async (id: string): Promise<void> => {
    await ask('DELETE /api/mocks/{id}/exchanges', { id });
  },
  pinExchange: async (id: string, number: number, isPinned: boolean): Promise<void> => {
    if (isPinned) await ask('PUT /api/mocks/{id}/exchanges/{number}/pin', { id, number });
    else await ask('DELETE /api/mocks/{id}/exchanges/{number}/pin', { id, number });
  },
  /** Where an archive of the exchanges that are looked for is to be had. */
  archiveAddress: (id: string, looked: Readonly<Record<string, string>>): string =>
    pathOf('GET /api/mocks/{id}/har', { id }, looked),
  readLoad: async (id: string, seconds: number): Promise<readonly LoadSecond[]> =>
    (await call('GET /api/mocks/{id}/load', { id }, { query: { seconds } })).items,
  readExchange: (id: string, number: number): Promise<Exchange> =>
    call('GET /api/mocks/{id}/exchanges/{number}', { id, number }),
  exampleOfExchange: (id: string, number: number): Promise<NamedExample> =>
    call('GET /api/mocks/{id}/exchanges/{number}/example', { id, number }),
  /** Where exchanges and changes of a mock are told as they happen. */
  eventsAddress: (id: string): string => pathOf('GET /api/mocks/{id}/events', { id }),
};
