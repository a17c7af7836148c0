import type { Choices } from '@isomeros/core/arrangement';
import type { Decision } from '@isomeros/core/migration';
import type { ImportMode } from '@isomeros/core/transfer';
import type {
  Design,
  DesignSummary,
  Exchange,
  ExchangeSummary,
  RecordType,
  LiveSchema,
  LiveSchemaAddress,
  Migration,
  Mock,
  MockAction,
  Snapshot,
  ProblemBody,
  Release,
  ReleaseEnd,
  Revision,
  RevisionSummary,
  Sample,
  SeedSettings,
  ImportResult,
  Faults,
} from './types.js';

/** Thrown where the server refuses or cannot be reached; `problem.detail` is fit to show. */
export class ApiError extends Error {
  constructor(readonly problem: ProblemBody) {
    super(problem.detail);
  }
}

/** Why the server refused, to be shown; anything else that went wrong goes on. */
export function refusal(error: unknown): string {
  if (!(error instanceof ApiError)) throw error;
  return error.problem.detail;
}

const UNREACHABLE: ProblemBody = {
  type: 'about:blank',
  title: 'Server not reachable',
  status: 0,
  detail: 'The server does not answer. Is it still running?',
};

async function ask(path: string, init: RequestInit = {}): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, init);
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

const get = async <T>(path: string): Promise<T> => (await (await ask(path)).json()) as T;

async function send<T>(
  method: 'POST' | 'PUT' | 'DELETE',
  path: string,
  body?: object,
  headers: Record<string, string> = {},
  signal: AbortSignal | null = null,
): Promise<T> {
  const init: RequestInit =
    body === undefined
      ? { method, headers, signal }
      : {
          method,
          signal,
          headers: { 'Content-Type': 'application/json', ...headers },
          body: JSON.stringify(body),
        };
  return (await (await ask(path, init)).json()) as T;
}

interface Items<T> {
  readonly items: readonly T[];
}

const etag = (revision: number): string => `"${revision}"`;

export const api = {
  listDesigns: async (): Promise<readonly DesignSummary[]> =>
    (await get<Items<DesignSummary>>('/designs?limit=200')).items,
  listSamples: async (): Promise<readonly Sample[]> => (await get<Items<Sample>>('/samples')).items,
  readDesign: (id: string): Promise<Design> => get(`/designs/${encodeURIComponent(id)}`),
  createDesign: (text: string, name?: string): Promise<Design> =>
    send('POST', '/designs', {
      ...(name === undefined ? {} : { name }),
      source: { format: 'notation', text },
    }),
  openDesignFile: (text: string): Promise<Design> =>
    send('POST', '/designs', { source: { format: 'design', text } }),
  copyDesign: (id: string, name: string): Promise<Design> => send('POST', `/designs/${id}/copy`, { name }),
  renameDesign: (id: string, name: string, revision: number): Promise<Design> =>
    send('PUT', `/designs/${id}/name`, { name }, { 'If-Match': etag(revision) }),
  restoreDesign: (id: string): Promise<Design> => send('POST', `/designs/${id}/bring-back`),
  saveChoices: (id: string, choices: Choices, revision: number): Promise<Design> =>
    send('PUT', `/designs/${id}/choices`, choices, { 'If-Match': etag(revision) }),
  renameArrangement: (id: string, from: string, to: string, revision: number): Promise<Design> =>
    send(
      'PUT',
      `/designs/${id}/arrangements/${encodeURIComponent(from)}/name`,
      { name: to },
      { 'If-Match': etag(revision) },
    ),
  removeArrangement: (id: string, name: string, revision: number): Promise<Design> =>
    send('DELETE', `/designs/${id}/arrangements/${encodeURIComponent(name)}`, undefined, {
      'If-Match': etag(revision),
    }),
  answerRename: (
    id: string,
    rename: { readonly from: string; readonly to: string; readonly renamed: boolean },
    revision: number,
  ): Promise<Design> => send('POST', `/designs/${id}/renames`, rename, { 'If-Match': etag(revision) }),
  /** Revisions before a cursor that an earlier page gave, latest first. */
  listRevisions: async (
    id: string,
    cursor: string | null,
  ): Promise<{ items: readonly RevisionSummary[]; next: string | null }> => {
    const query = cursor === null ? '?limit=200' : `?limit=200&cursor=${encodeURIComponent(cursor)}`;
    const response = await ask(`/designs/${id}/revisions${query}`);
    const next = /[?&]cursor=([^&>]+)/.exec(response.headers.get('link') ?? '')?.[1] ?? null;
    const { items } = (await response.json()) as Items<RevisionSummary>;
    return { items, next: next === null ? null : decodeURIComponent(next) };
  },
  readRevision: (id: string, number: number): Promise<Revision> => get(`/designs/${id}/revisions/${number}`),
  restoreRevision: (id: string, number: number, revision: number): Promise<Design> =>
    send('POST', `/designs/${id}/revisions/${number}/restore`, undefined, { 'If-Match': etag(revision) }),
  listReleases: async (id: string): Promise<readonly Release[]> =>
    (await get<Items<Release>>(`/designs/${id}/releases`)).items,
  makeRelease: (id: string, label: string, arrangement: string): Promise<Release> =>
    send('POST', `/designs/${id}/releases`, { label, arrangement }),
  /** The contract of a release, as JSON. */
  readReleaseContract: async (id: string, label: string): Promise<string> =>
    (await ask(`/designs/${id}/releases/${label}/contract`)).text(),
  markRelease: (id: string, label: string, end: ReleaseEnd | null): Promise<Release> =>
    end === null
      ? send('DELETE', `/designs/${id}/releases/${label}/end`)
      : send('PUT', `/designs/${id}/releases/${label}/end`, end),
  removeRelease: async (id: string, label: string): Promise<void> => {
    await ask(`/designs/${id}/releases/${label}`, { method: 'DELETE' });
  },
  readLiveSchema: (address: LiveSchemaAddress, signal: AbortSignal): Promise<LiveSchema> =>
    send('POST', '/live-schemas', address, {}, signal),
  saveModel: (id: string, text: string, revision: number): Promise<Design> =>
    send('PUT', `/designs/${id}/model`, { text }, { 'If-Match': etag(revision) }),
  removeDesign: async (id: string): Promise<void> => {
    await ask(`/designs/${id}`, { method: 'DELETE' });
  },
  listMocks: async (): Promise<readonly Mock[]> => (await get<Items<Mock>>('/mocks')).items,
  readMock: (id: string): Promise<Mock> => get(`/mocks/${id}`),
  createMock: (
    design: string,
    arrangements: readonly string[],
    releases: readonly string[] = [],
  ): Promise<Mock> => send('POST', '/mocks', { design, arrangements, releases }),
  actOnMock: (id: string, action: MockAction): Promise<Mock> => send('POST', `/mocks/${id}/${action}`),
  listSnapshots: async (id: string): Promise<readonly Snapshot[]> =>
    (await get<Items<Snapshot>>(`/mocks/${id}/snapshots`)).items,
  takeSnapshot: (id: string, name: string): Promise<Snapshot> =>
    send('POST', `/mocks/${id}/snapshots`, { name }),
  restoreSnapshot: (id: string, name: string): Promise<Mock> =>
    send('POST', `/mocks/${id}/snapshots/${encodeURIComponent(name)}/restore`),
  removeSnapshot: async (id: string, name: string): Promise<void> => {
    await ask(`/mocks/${id}/snapshots/${encodeURIComponent(name)}`, { method: 'DELETE' });
  },
  listRecordTypes: async (id: string): Promise<readonly RecordType[]> =>
    (await get<Items<RecordType>>(`/mocks/${id}/kinds`)).items,
  /** Where the records of a mock are to be had, of one kind or of all. */
  recordsAddress: (id: string, kind: string | null, query: Readonly<Record<string, string>>): string => {
    const asked = new URLSearchParams(query).toString();
    const of = kind === null ? '' : `/${encodeURIComponent(kind)}`;
    return `/api/mocks/${id}/records${of}${asked === '' ? '' : `?${asked}`}`;
  },
  importRecords: async (
    id: string,
    kind: string | null,
    given: {
      readonly text: string;
      readonly isCsv: boolean;
      readonly way: ImportMode;
      readonly check: boolean;
    },
  ): Promise<ImportResult> => {
    const { text, isCsv, way, check } = given;
    const of = kind === null ? '' : `/${encodeURIComponent(kind)}`;
    const response = await ask(`/mocks/${id}/records${of}?way=${way}${check ? '&check=only' : ''}`, {
      method: 'POST',
      headers: { 'Content-Type': isCsv ? 'text/csv' : 'application/json' },
      body: text,
    });
    return (await response.json()) as ImportResult;
  },
  readMigration: (id: string): Promise<Migration> => get(`/mocks/${id}/migration`),
  migrate: (id: string, decisions: Readonly<Record<string, Decision>>): Promise<Mock> =>
    send('POST', `/mocks/${id}/migration`, { decisions }),
  readSeedSettings: (id: string): Promise<SeedSettings> => get(`/mocks/${id}/seeding`),
  saveSeedSettings: (id: string, seeding: SeedSettings): Promise<SeedSettings> =>
    send('PUT', `/mocks/${id}/seeding`, seeding),
  readFaults: (id: string): Promise<Faults> => get(`/mocks/${id}/trouble`),
  saveFaults: (id: string, troubles: Faults): Promise<Faults> =>
    send('PUT', `/mocks/${id}/trouble`, troubles),
  removeMock: async (id: string): Promise<void> => {
    await ask(`/mocks/${id}`, { method: 'DELETE' });
  },
  sendMessage: (
    id: string,
    message: string,
    to: { readonly arrangement: string } | { readonly release: string },
  ): Promise<{ lastExchange: number }> => send('POST', `/mocks/${id}/messages`, { message, ...to }),
  listExchanges: async (id: string): Promise<readonly ExchangeSummary[]> =>
    [...(await get<Items<ExchangeSummary>>(`/mocks/${id}/exchanges?limit=200`)).items].reverse(),
  readExchange: (id: string, number: number): Promise<Exchange> => get(`/mocks/${id}/exchanges/${number}`),
};
