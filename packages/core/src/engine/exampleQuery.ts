import { looksThroughList, type Operation, type OwnField, type Resource } from '../contract/index.js';
import { scalarText, type EntityStorage } from '../model/index.js';
import { Random, seedScalar } from '../seeding/index.js';
import type { RecordView } from './dataset.js';
import { fieldValue, isScalarValue } from './list/field.js';
import { storageNamed, type RequestContext } from './service.js';

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
  if (custom === null || !looksThroughList(custom)) return [];
  const storage = storageNamed(service, entity);
  return query.flatMap((parameter): string[] => {
    if (parameter.role !== 'input' || parameter.default !== null) return [];
    const { name, type } = parameter;
    const field = custom.filters.find(({ value }) => value.kind === 'input' && value.name === name)?.field;
    const known = field === undefined ? null : firstValue(service, records, storage, field);
    const made = seedScalar(
      type,
      { name, of: entity ?? '', ordinal: 1, attempt: 0 },
      new Random(1),
      service.now,
    );
    return [`${encodeURIComponent(name)}=${encodeURIComponent(scalarText(known ?? made))}`];
  });
}

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
