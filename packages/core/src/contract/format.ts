import { listedSetting, SETTINGS } from '../arrangement/index.js';
import { NO_NOTES } from './documentation.js';
import { capital, Format, isJsonObject, phrase, plural, type Json, type JsonObject } from '../model/index.js';
import { linkId } from './linkId.js';
import type { Contract, DerivedTarget } from './types.js';

/** How contracts are frozen in releases. What a release keeps stays as it is; it is upgraded where it is read. */
export const CONTRACT_FORMAT = new Format('The contract of a release', [
  withListsOfSettings,
  withNothingLeftOut,
  withoutCeilings,
  withoutEnvelopes,
  withScalesInWords,
]);

/** The text in which a contract is kept and published. */
export const writeContract = (contract: Contract): string => JSON.stringify(CONTRACT_FORMAT.stamp(contract));

/** A contract from the text in which any version kept it. */
export const readContract = (text: string): Contract =>
  CONTRACT_FORMAT.upgrade(JSON.parse(text) as JsonObject) as unknown as Contract;

/**
 * Format 1 joins settings that are lists with commas, calls the verb of custom operations and the links to them
 * `act`, and may know neither a base of relations nor the variables of a template.
 */
function withListsOfSettings(kept: JsonObject): JsonObject {
  const { representation, operations, ...others } = upgraded(kept) as JsonObject;
  return {
    ...others,
    representation: { relationBase: '', ...(representation as JsonObject) },
    operations: (operations as readonly JsonObject[]).map((operation) =>
      operation['verb'] === 'act' ? { ...operation, verb: 'custom' } : operation,
    ),
  };
}

/** Format 2 offers whatever the model allows, writes operators in brackets, and has one form of pages. */
function withNothingLeftOut(kept: JsonObject): JsonObject {
  const { resources, operations, shapes, paging, representation, ...others } = kept;
  const { envelope = 'object', ...represented } = representation as JsonObject;
  const form = { ...(paging as JsonObject), envelope, variant: '' };
  return {
    ...others,
    paging: form,
    totalHeader: 'Total-Count',
    representation: represented,
    shapes: (shapes as readonly JsonObject[]).map((shape) => ({
      ...shape,
      members: (shape['members'] as readonly JsonObject[]).map(withVariant),
    })),
    resources: (resources as readonly JsonObject[]).map((resource) => ({ leftOut: [], ...resource })),
    operations: (operations as readonly JsonObject[]).map(({ query, ...operation }) => ({
      ...operation,
      paging: operation['verb'] === 'list' ? form : null,
      query: (query as readonly JsonObject[]).map((parameter) =>
        parameter['role'] === 'filter' ? { spelling: 'bracketed', family: '', ...parameter } : parameter,
      ),
    })),
  };
}

/** In format 3 a list has pages, or everything. */
function withoutCeilings(kept: JsonObject): JsonObject {
  const { operations, paging, names, ...others } = kept;
  const known = names as JsonObject;
  const withCeiling = (form: Json | undefined): Json =>
    isJsonObject(form) ? { ...form, ceiling: null } : null;
  return {
    ...others,
    paging: withCeiling(paging),
    moreHeader: SETTINGS.moreHeader.default,
    // Names are in one case, whichever it is.
    names: { ...known, more: known['size'] === 'Size' ? 'More' : 'more' },
    operations: (operations as readonly JsonObject[]).map((operation) => ({
      ...operation,
      paging: withCeiling(operation['paging']),
    })),
  };
}

/** In format 4 links are as they are derived, one record is always the body; nothing that is sent must equal anything, nor says that it may be null. */
function withoutEnvelopes({
  representation,
  shapes,
  resources,
  operations,
  ...others
}: JsonObject): JsonObject {
  return {
    ...others,
    documentation: {
      summary: null,
      version: null,
      contact: null,
      license: null,
      terms: null,
      external: null,
      servers: [],
      tags: tagsOf(resources as readonly JsonObject[]),
      notes: NO_NOTES as unknown as JsonObject,
    },
    operations: (operations as readonly JsonObject[]).map((operation) => ({
      ...operation,
      documentation: null,
      tags: [tagOf((resources as readonly JsonObject[]).find(({ id }) => id === operation['resource']))],
    })),
    representation: {
      ...(representation as JsonObject),
      memberLinks: 'all',
      linkMethods: 'none',
      registered: [],
      record: null,
    },
    resources: (resources as readonly JsonObject[]).map((resource) => ({
      ...resource,
      links: (resource['links'] as readonly JsonObject[]).map(withIdentity),
      leftOutLinks: [],
    })),
    shapes: (shapes as readonly JsonObject[]).map((shape) => ({
      ...shape,
      members: (shape['members'] as readonly JsonObject[]).map((member) =>
        (member['source'] as JsonObject)['kind'] === 'input'
          ? {
              ...member,
              nullable: member['required'] === false,
              source: { ...(member['source'] as JsonObject), equals: null },
            }
          : member,
      ),
    })),
  };
}

/** In format 5 schemas say in words how many digits a decimal has. */
function withScalesInWords({ representation, ...others }: JsonObject): JsonObject {
  return { ...others, representation: { ...(representation as JsonObject), decimalScales: 'described' } };
}

/** The entity whose records a resource shows is what its operations stood under. */
const tagOf = (resource: JsonObject | undefined): string => (resource?.['entity'] ?? 'entry') as string;

const tagsOf = (resources: readonly JsonObject[]): readonly JsonObject[] =>
  [...new Set(resources.map(tagOf))].map((id) => ({
    id,
    title: id === 'entry' ? 'Entry' : capital(phrase(plural(id))),
    description: null,
    external: null,
  }));

const withIdentity = (link: JsonObject): JsonObject => ({
  ...link,
  id: linkId(link['relation'] as string, link['target'] as unknown as DerivedTarget),
  attributes: null,
  in: null,
  was: null,
});

/** Where a page stands is told alike in all lists of format 2. */
const withVariant = ({ type, ...member }: JsonObject): JsonObject => ({
  ...member,
  type: isJsonObject(type) && type['kind'] === 'page' ? { ...type, variant: '' } : (type ?? null),
});

/** Everything inside: a link target and the source of a reason are known by their kind, wherever they are. */
function upgraded(value: Json): Json {
  if (Array.isArray(value)) return (value as readonly Json[]).map(upgraded);
  if (!isJsonObject(value)) return value;
  if (value['rule'] === 'operation.act') return { ...value, rule: 'operation.custom' };
  const inside = Object.fromEntries(Object.entries(value).map(([name, member]) => [name, upgraded(member)]));
  switch (inside['kind']) {
    case 'act':
      return { ...inside, kind: 'custom' };
    case 'template':
      return { variables: null, ...inside };
    case 'setting':
      return { ...inside, value: listedSetting(inside['name'] as string, inside['value'] ?? null) };
    default:
      return inside;
  }
}
