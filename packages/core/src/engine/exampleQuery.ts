import {
  looksForRecords,
  looksThroughList,
  type CustomFilter,
  type Operation,
  type OwnField,
  type Resource,
} from '../contract/index.js';
import { bareObject, scalarText, type EntityStorage, type Json, type ScalarType } from '../model/index.js';
import { Random, seedScalar } from '../seeding/index.js';
import type { RecordView } from './dataset.js';
import { fieldValue, isScalarValue } from './list/field.js';
import { shapeNamed, storageNamed, type RequestContext } from './service.js';

/** A target with what shows how much can be asked for: related records inside, and of its members a few. */
export function withExampleQuery(target: string, { query }: Operation): string {
  const parameters = query.flatMap((parameter): string[] => {
    switch (parameter.role) {
      case 'expand':
        return [`${parameter.name}=${parameter.names[0] ?? ''}`];
      case 'fields':
        return [`${parameter.name}=${parameter.names.slice(0, 3).join(',')}`];
      case 'input':
      case 'page':
      case 'offset':
      case 'cursor':
      case 'size':
      case 'sort':
      case 'order':
      case 'search':
      case 'filter':
        return [];
    }
  });
  return withParameters(target, parameters);
}

/** A target with more parameters. */
export const withParameters = (target: string, parameters: readonly string[]): string =>
  parameters.length === 0 ? target : `${target}${target.includes('?') ? '&' : '?'}${parameters.join('&')}`;

/** What a query of one's own must be asked with: what some record has in what it is compared with. */
export function exampleInputs(
  service: RequestContext,
  records: RecordView,
  { custom, query }: Operation,
  { entity }: Resource,
): readonly string[] {
  if (custom === null || !looksForRecords(custom)) return [];
  const of = custom.kind === 'aggregate' ? custom.entity : entity;
  return query.flatMap((parameter): string[] => {
    if (parameter.role !== 'input' || parameter.default !== null) return [];
    const { name, type } = parameter;
    const value = exampleInput(service, records, custom.filters, of, name, type);
    return [`${encodeURIComponent(name)}=${encodeURIComponent(scalarText(value))}`];
  });
}

/** The same in a body. */
export function exampleOfQuery(
  service: RequestContext,
  records: RecordView,
  { custom, accepts }: Operation,
  { entity }: Resource,
): Json {
  const body = bareObject();
  if (custom === null || !looksThroughList(custom)) return body;
  for (const { name, type, source } of shapeNamed(service, accepts).members)
    if (source.kind === 'input' && source.usual === null)
      body[name] = exampleInput(service, records, custom.filters, entity, name, type as ScalarType);
  return body;
}

function exampleInput(
  service: RequestContext,
  records: RecordView,
  filters: readonly CustomFilter[],
  entity: string | null,
  name: string,
  type: ScalarType,
): string | number | boolean | null {
  const field = filters.find(({ value }) => value.kind === 'input' && value.name === name)?.field;
  const known =
    field === undefined ? null : firstValue(service, records, storageNamed(service, entity), field);
  return known ?? anyInput(service, { name, of: entity ?? '' }, type);
}

/** Something that fits the type of an input. */
export const anyInput = (
  service: RequestContext,
  subject: { readonly name: string; readonly of: string },
  type: ScalarType,
): string | number | boolean | null =>
  seedScalar(type, { ...subject, ordinal: 1, attempt: 0 }, new Random(1), service.now);

/** What the first record has that has anything in a field; `null` where none has. */
function firstValue(
  service: RequestContext,
  records: RecordView,
  storage: EntityStorage,
  field: OwnField,
): string | number | boolean | null {
  for (const row of records.all(storage)) {
    const value = fieldValue(service, records, row, field);
    if (isScalarValue(value)) return value;
  }
  return null;
}
