import type { SeedPreview } from '@isomeros/core/records';
import type {
  Faults,
  ImportResult,
  InspectedRecord,
  MigrationView,
  Mock,
  NewEdits,
  RecordTable,
  RecordType,
  SeedSettings,
  Snapshot,
  WrittenEdits,
} from '@isomeros/api';
import type { Decision } from '@isomeros/core/migration';
import { api, type Import } from '../app/api/client.js';
import { askWith, answersNothing, serverApi } from '../app/api/serverApi.js';

/** Some of the records of one type. */
export interface RecordsAsked {
  readonly mock: string;
  readonly type: string;
  readonly find: string;
  /** The name of a column, with a minus in front where it descends; empty for none. */
  readonly sort: string;
  readonly offset: number;
  readonly limit: number;
}

export const recordsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listSnapshots: build.query<readonly Snapshot[], string>({
      queryFn: askWith(api.listSnapshots),
      providesTags: ['Snapshots'],
    }),
    takeSnapshot: build.mutation<Snapshot, { readonly mock: string; readonly name: string }>({
      queryFn: askWith(({ mock, name }, signal) => api.takeSnapshot(mock, name, signal)),
      invalidatesTags: ['Snapshots'],
    }),
    restoreSnapshot: build.mutation<Mock, { readonly mock: string; readonly name: string }>({
      queryFn: askWith(({ mock, name }, signal) => api.restoreSnapshot(mock, name, signal)),
      invalidatesTags: ['Mocks', 'Records', 'Migration'],
    }),
    removeSnapshot: build.mutation<null, { readonly mock: string; readonly name: string }>({
      queryFn: askWith(answersNothing(({ mock, name }) => api.removeSnapshot(mock, name))),
      invalidatesTags: ['Snapshots'],
    }),
    listRecordTypes: build.query<readonly RecordType[], string>({
      queryFn: askWith(api.listRecordTypes),
      providesTags: ['Records'],
    }),
    readRecordTable: build.query<RecordTable, RecordsAsked>({
      queryFn: askWith(({ mock, type, ...asked }) => api.readRecordTable(mock, type, asked)),
      providesTags: ['Records'],
    }),
    readRecord: build.query<
      InspectedRecord,
      { readonly mock: string; readonly type: string; readonly number: number }
    >({
      queryFn: askWith(({ mock, type, number }) => api.readRecord(mock, type, number)),
      providesTags: ['Records'],
    }),
    writeEdits: build.mutation<WrittenEdits, { readonly mock: string; readonly body: NewEdits }>({
      queryFn: askWith(({ mock, body }) => api.writeEdits(mock, body)),
      invalidatesTags: ['Mocks', 'Records'],
    }),
    importRecords: build.mutation<
      ImportResult,
      { readonly mock: string; readonly type: string | null } & Import
    >({
      queryFn: askWith(({ mock, type, ...given }, signal) => api.importRecords(mock, type, given, signal)),
      invalidatesTags: ['Mocks', 'Records'],
    }),
    readMigration: build.query<MigrationView, string>({
      queryFn: askWith(api.readMigration),
      providesTags: ['Migration'],
    }),
    migrate: build.mutation<
      Mock,
      { readonly mock: string; readonly decisions: Readonly<Record<string, Decision>> }
    >({
      queryFn: askWith(({ mock, decisions }, signal) => api.migrate(mock, decisions, signal)),
      invalidatesTags: ['Mocks', 'Records', 'Migration', 'Snapshots'],
    }),
    readSeedSettings: build.query<SeedSettings, string>({ queryFn: askWith(api.readSeedSettings) }),
    saveSeedSettings: build.mutation<
      SeedSettings,
      { readonly mock: string; readonly settings: SeedSettings }
    >({ queryFn: askWith(({ mock, settings }) => api.saveSeedSettings(mock, settings)) }),
    previewSeed: build.mutation<SeedPreview, { readonly mock: string; readonly settings: SeedSettings }>({
      queryFn: askWith(({ mock, settings }, signal) => api.previewSeed(mock, settings, signal)),
    }),
    readFaults: build.query<Faults, string>({ queryFn: askWith(api.readFaults) }),
    saveFaults: build.mutation<Faults, { readonly mock: string; readonly faults: Faults }>({
      queryFn: askWith(({ mock, faults }) => api.saveFaults(mock, faults)),
      invalidatesTags: ['Mocks'],
    }),
  }),
});

export const {
  useListSnapshotsQuery,
  useTakeSnapshotMutation,
  useRestoreSnapshotMutation,
  useRemoveSnapshotMutation,
  useListRecordTypesQuery,
  useReadRecordTableQuery,
  useReadRecordQuery,
  useImportRecordsMutation,
  useWriteEditsMutation,
  useReadMigrationQuery,
  useMigrateMutation,
  useLazyReadSeedSettingsQuery,
  usePreviewSeedMutation,
  useSaveSeedSettingsMutation,
  useLazyReadFaultsQuery,
  useSaveFaultsMutation,
} = recordsApi;
