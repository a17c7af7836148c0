import { describe, expect, test } from '@jest/globals';
import type { RouteKey } from '@isomeros/api';
import {
  CopyDto,
  CreateDesignDto,
  DesignFileQueryDto,
  DesignsQueryDto,
  ArrangementNameDto,
  ChangesQueryDto,
  MakeReleaseDto,
  NameDto,
  PublicationQueryDto,
  ReleaseEndDto,
  RenameDto,
  SaveChoicesDto,
  SaveModelDto,
} from '../src/designs/designs.dto.js';
import { membersOf } from '../src/http/inputPipe.js';
import type { InputClass } from '../src/http/nested.js';
import { PageQueryDto } from '../src/http/query.dto.js';
import { LiveSchemaDto } from '../src/intake/intake.dto.js';
import { FaultsDto } from '../src/mocks/faults.dto.js';
import {
  CreateMockDto,
  LoadQueryDto,
  DecisionsDto,
  MocksQueryDto,
  SeedPlanDto,
  SendMessageDto,
  ServedDto,
  SnapshotDto,
} from '../src/mocks/mocks.dto.js';
import { ExchangesPageQueryDto, ExchangesQueryDto } from '../src/mocks/exchanges.dto.js';
import {
  ExportQueryDto,
  ImportQueryDto,
  RecordEditsDto,
  TableQueryDto,
  TypeExportQueryDto,
} from '../src/mocks/records.dto.js';
import { document, operationOf, operations, type Operation, type Schema } from './support/description.js';

/** The classes that check what comes in, and where. */
const CHECKED: readonly (readonly [RouteKey, 'query' | 'body', InputClass])[] = [
  ['GET /api/designs', 'query', DesignsQueryDto],
  ['POST /api/designs', 'body', CreateDesignDto],
  ['POST /api/intakes', 'body', CreateDesignDto],
  ['POST /api/designs/{id}/copy', 'body', CopyDto],
  ['GET /api/designs/{id}/file', 'query', DesignFileQueryDto],
  ['PUT /api/designs/{id}/name', 'body', NameDto],
  ['PUT /api/designs/{id}/model', 'body', SaveModelDto],
  ['PUT /api/designs/{id}/choices', 'body', SaveChoicesDto],
  ['POST /api/designs/{id}/renames', 'body', RenameDto],
  ['GET /api/designs/{id}/arrangements/{name}/publications/{format}', 'query', PublicationQueryDto],
  ['GET /api/designs/{id}/releases/{label}/publications/{format}', 'query', PublicationQueryDto],
  ['GET /api/designs/{id}/revisions', 'query', PageQueryDto],
  ['PUT /api/designs/{id}/arrangements/{name}/name', 'body', ArrangementNameDto],
  ['POST /api/designs/{id}/releases', 'body', MakeReleaseDto],
  ['PUT /api/designs/{id}/releases/{label}/end', 'body', ReleaseEndDto],
  ['GET /api/designs/{id}/releases/{label}/changes', 'query', ChangesQueryDto],
  ['POST /api/live-schemas', 'body', LiveSchemaDto],
  ['GET /api/mocks', 'query', MocksQueryDto],
  ['POST /api/mocks', 'body', CreateMockDto],
  ['PUT /api/mocks/{id}/seed-plan', 'body', SeedPlanDto],
  ['POST /api/mocks/{id}/seed-preview', 'body', SeedPlanDto],
  ['PUT /api/mocks/{id}/faults', 'body', FaultsDto],
  ['POST /api/mocks/{id}/migration', 'body', DecisionsDto],
  ['POST /api/mocks/{id}/snapshots', 'body', SnapshotDto],
  ['POST /api/mocks/{id}/messages', 'body', SendMessageDto],
  ['PUT /api/mocks/{id}/unversioned', 'body', ServedDto],
  ['GET /api/mocks/{id}/exchanges', 'query', ExchangesPageQueryDto],
  ['GET /api/mocks/{id}/har', 'query', ExchangesQueryDto],
  ['GET /api/mocks/{id}/load', 'query', LoadQueryDto],
  ['GET /api/mocks/{id}/record-types/{type}/table', 'query', TableQueryDto],
  ['POST /api/mocks/{id}/record-edits', 'body', RecordEditsDto],
  ['GET /api/mocks/{id}/records', 'query', ExportQueryDto],
  ['GET /api/mocks/{id}/records/{type}', 'query', TypeExportQueryDto],
  ['POST /api/mocks/{id}/records', 'query', ImportQueryDto],
  ['POST /api/mocks/{id}/records/{type}', 'query', ImportQueryDto],
];

/** What is read as a whole by its own reader: records, and what is decided about an arrangement. */
const READ_AS_A_WHOLE: readonly string[] = [
  'PUT /api/designs/{id}/arrangements/{name}',
  'POST /api/mocks/{id}/records',
  'POST /api/mocks/{id}/records/{type}',
];

const membersIn = (schema: Schema | undefined): readonly string[] => {
  if (schema === undefined) return [];
  if (schema.$ref !== undefined)
    return membersIn(document.components.schemas[schema.$ref.split('/').at(-1) ?? '']);
  return [...Object.keys(schema.properties ?? {}), ...(schema.allOf ?? []).flatMap(membersIn)];
};

const queryOf = (operation: Operation | undefined): readonly string[] =>
  (operation?.parameters ?? []).flatMap(({ in: place, name }) => (place === 'query' ? [name] : []));

describe('what comes in', () => {
  test.each(CHECKED)('%s: the %s has the members of its type', (key, part, checkedBy) => {
    const operation = operationOf(key);
    const typed =
      part === 'query'
        ? queryOf(operation)
        : membersIn(operation?.requestBody?.content['application/json']?.schema);
    expect([...membersOf(checkedBy)].sort()).toEqual([...typed].sort());
  });

  test('is checked wherever there is something', () => {
    const of = (part: 'query' | 'body'): readonly string[] =>
      CHECKED.flatMap(([key, checked]) => (checked === part ? [key] : [])).sort();
    const withQuery = operations.flatMap(([key, operation]) => (queryOf(operation).length > 0 ? [key] : []));
    expect(withQuery.sort()).toEqual(of('query'));
    const withBody = operations.flatMap(([key, { requestBody }]) => (requestBody === undefined ? [] : [key]));
    expect(withBody.filter((key) => !READ_AS_A_WHOLE.includes(key)).sort()).toEqual(of('body'));
  });
});
