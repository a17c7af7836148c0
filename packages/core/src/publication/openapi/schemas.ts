import {
  HAL,
  severalIn,
  type Contract,
  type Member,
  type MemberType,
  type PageForm,
  type Shape,
} from '../../contract/index.js';
import { envelopeSchemas } from './envelopes.js';
import { bounds, scalarSchema, type DecimalScales, type JsonSchema } from './scalarSchema.js';
import { memoize, type Json } from '../../model/index.js';

export const reference = (name: string): JsonSchema => ({ $ref: `#/components/schemas/${name}` });

/** Every shape of a contract under its name, with the structures that all contracts share. */
export function componentSchemas(contract: Contract): Record<string, Json> {
  const shapes = contract.shapes.map((shape) => [shape.name, shapeSchema(contract, shape)] as const);
  const returned = contract.representation.mediaTypes.includes(HAL) ? contract.shapes.filter(isReturned) : [];
  const hal = returned.map(
    (shape) => [halName(shape.name), halSchema(shape, contract.representation.decimalScales)] as const,
  );
  const enveloped = envelopeSchemas(contract, (shape) => shapeSchema(contract, shape), reference);
  return Object.fromEntries([...shapes, ...enveloped, ...hal, ...Object.entries(sharedSchemas(contract))]);
}

const isReturned = ({ purpose }: Shape): boolean =>
  purpose === 'item' || purpose === 'member' || purpose === 'page' || purpose === 'entry';

const ANSWERED: ReadonlySet<Shape['purpose']> = new Set<Shape['purpose']>(['token', 'aggregate', 'fixed']);

/** What is answered, in whatever form. */
const isAnswered = (shape: Shape): boolean => isReturned(shape) || ANSWERED.has(shape.purpose);

/** The schema of a shape. Bodies that are sent are closed; answers may grow. */
function shapeSchema(contract: Contract, shape: Shape): JsonSchema {
  const scales = contract.representation.decimalScales;
  if (shape.purpose === 'page' && formOfShape(contract, shape).envelope === 'bare') {
    const items = shape.members.find(({ source }) => source.kind === 'items');
    return items === undefined ? {} : memberSchema(items, scales);
  }
  const isOpen = isAnswered(shape) || contract.unknownMembers === 'ignored';
  const object = objectSchema(shape.members, scales);
  const added = sentAsHal(contract).has(shape.name) ? ADDED_BY_HAL : {};
  return {
    ...object,
    properties: { ...(object['properties'] as JsonSchema), ...added },
    ...(isOpen ? {} : { additionalProperties: false }),
  };
}

/** What HAL adds to a record may be sent back with it, and has no effect. */
const ADDED_BY_HAL: JsonSchema = {
  _links: { readOnly: true },
  _embedded: { readOnly: true },
};

/** The names of the shapes that may be sent as HAL. */
const sentAsHal = memoize(
  ({ operations }: Contract): ReadonlySet<string> =>
    new Set(
      operations.flatMap(({ acceptedTypes, accepts }) =>
        acceptedTypes.includes(HAL) ? (accepts ?? []) : [],
      ),
    ),
);

function objectSchema(members: readonly Member[], scales: DecimalScales): JsonSchema {
  const required = members.filter((member) => member.required).map((member) => member.name);
  return {
    type: 'object',
    properties: Object.fromEntries(members.map((member) => [member.name, memberSchema(member, scales)])),
    ...(required.length === 0 ? {} : { required }),
  };
}

/** The name of a shape as HAL writes it. */
export const halName = (shape: string): string => `${shape}.hal`;

/** A shape as HAL writes it: links under `_links`, the members of a page under `_embedded`. */
function halSchema(shape: Shape, scales: DecimalScales): JsonSchema {
  const own = shape.members.filter(
    ({ source }) => source.kind !== 'links' && source.kind !== 'items' && source.kind !== 'expanded',
  );
  const items = shape.members.find(({ source }) => source.kind === 'items');
  const listed = items?.type.kind === 'list' && items.type.of.kind === 'shape' ? items.type.of.shape : null;
  const embedded: JsonSchema =
    listed === null
      ? halInside(shape)
      : {
          _embedded: {
            type: 'object',
            properties: { item: { type: 'array', items: reference(halName(listed)) } },
            required: ['item'],
          },
        };
  const { properties } = objectSchema(own, scales);
  const required = own.filter((member) => member.required).map((member) => member.name);
  return {
    type: 'object',
    properties: { ...(properties as JsonSchema), ...embedded, _links: reference('halLinks') },
    required: [...required, ...(listed === null ? [] : ['_embedded']), '_links'],
  };
}

/** Related records inside a record, by relation (draft-kelly-json-hal §4.1.2). */
function halInside({ members }: Shape): { readonly _embedded?: JsonSchema } {
  const inside = members.flatMap(({ source }) => {
    if (source.kind !== 'expanded') return [];
    const one = reference(halName(source.entity));
    return [[`rel:${source.relation}`, source.limit === null ? one : { type: 'array', items: one }] as const];
  });
  return inside.length === 0 ? {} : { _embedded: { type: 'object', properties: Object.fromEntries(inside) } };
}

function memberSchema(member: Member, scales: DecimalScales): JsonSchema {
  const typed = typeSchema(member.type, scales);
  const schema = member.nullable ? nullable(typed) : typed;
  return {
    ...schema,
    ...(member.source.kind === 'input' && member.source.isSecret ? { writeOnly: true } : {}),
    ...(member.mode === 'must-equal' || member.mode === 'ignored' ? { readOnly: true } : {}),
    ...describe(member),
    ...(member.default === null ? {} : { default: member.default }),
    ...(member.example === null ? {} : { examples: [member.example] }),
  };
}

/** Texts one after the other, each ended before the next begins. */
const sentences = (texts: readonly string[]): string =>
  texts.map((text, at) => (at < texts.length - 1 && !/[.!?:]$/.test(text) ? `${text}.` : text)).join(' ');

function describe(member: Member): JsonSchema {
  const notes = [
    member.description,
    member.mode === 'must-equal' ? 'Never changes.' : null,
    member.mode === 'moved' ? 'Moves along its life cycle only.' : null,
    member.type.kind === 'decimal' && member.type.scale !== null
      ? `At most ${member.type.scale} ${member.type.scale === 1 ? 'digit' : 'digits'} after the point.`
      : null,
  ].filter((note) => note !== null);
  return notes.length === 0 ? {} : { description: sentences(notes) };
}

function nullable(schema: JsonSchema): JsonSchema {
  const { type, enum: options } = schema;
  if (typeof type !== 'string')
    return Object.keys(schema).length === 0 ? {} : { anyOf: [schema, { type: 'null' }] };
  return {
    ...schema,
    type: [type, 'null'],
    ...(Array.isArray(options) ? { enum: [...(options as Json[]), null] } : {}),
  };
}

function typeSchema(type: MemberType, scales: DecimalScales): JsonSchema {
  switch (type.kind) {
    case 'json':
      return {};
    case 'shape':
      return reference(type.shape);
    case 'list':
      return {
        type: 'array',
        items: typeSchema(type.of, scales),
        ...bounds('minItems', type.min, 'maxItems', type.max),
      };
    case 'links':
      return reference('links');
    case 'page':
      return reference(pageName(type.variant));
    default:
      return scalarSchema(type, scales);
  }
}

const cursor: JsonSchema = { type: ['string', 'null'] };
const count = { type: 'integer', minimum: 0 };

const LINK_MEMBERS = {
  href: { type: 'string', description: 'A URI reference, or a URI template where templated.' },
  templated: { type: 'boolean', description: 'Whether it is a URI template (RFC 6570).' },
};

const LINK: JsonSchema = { type: 'object', properties: LINK_MEMBERS, required: ['href'] };

/** A link that says how it is followed where it is no GET. */
const LINK_WITH_METHOD: JsonSchema = {
  type: 'object',
  properties: {
    ...LINK_MEMBERS,
    method: { type: 'string', description: 'The method it is followed with; GET where there is none.' },
    accepts: { type: 'array', items: { type: 'string' }, description: 'The media types accepted there.' },
  },
  required: ['href'],
};

/** Whether a relation may have several targets: in a resource, or where a pair's own is beside those of its record. */
const hasSeveral = memoize(({ resources }: Contract): boolean => {
  const ofPairs = new Set(
    resources.flatMap(({ kind, links }) => (kind === 'pair' ? links.map(({ relation }) => relation) : [])),
  );
  return resources.some(
    ({ kind, links }) =>
      severalIn(links).size > 0 || (kind !== 'pair' && links.some(({ relation }) => ofPairs.has(relation))),
  );
});

/** Links of HAL: a link or several a relation; relations of our own as CURIEs. */
const HAL_LINKS: JsonSchema = {
  type: 'object',
  additionalProperties: {
    anyOf: [
      { $ref: '#/components/schemas/halLink' },
      { type: 'array', items: { $ref: '#/components/schemas/halLink' } },
    ],
  },
};

const HAL_LINK: JsonSchema = {
  type: 'object',
  properties: {
    href: { type: 'string' },
    templated: { type: 'boolean' },
    name: { type: 'string', description: 'The prefix of a CURIE.' },
  },
  required: ['href'],
};

/** A JSON Patch document (RFC 6902 §3). */
const JSON_PATCH: JsonSchema = {
  type: 'array',
  items: {
    type: 'object',
    properties: {
      op: { type: 'string', enum: ['add', 'remove', 'replace', 'move', 'copy', 'test'] },
      path: { type: 'string', format: 'json-pointer' },
      from: { type: 'string', format: 'json-pointer' },
      value: {},
    },
    required: ['op', 'path'],
  },
};

/** Every form that lists of a contract have, that of the arrangement first. */
const formsOf = (contract: Contract): readonly PageForm[] => {
  const forms = new Map([['', contract.paging]]);
  for (const { paging } of contract.operations)
    if (paging !== null && !forms.has(paging.variant)) forms.set(paging.variant, paging);
  return [...forms.values()];
};

const pageName = (variant: string): string => (variant === '' ? 'page' : `page.${variant}`);

/** The form of the lists that answer with a page. */
const formOfShape = (contract: Contract, { name }: Shape): PageForm =>
  formsByPage(contract).get(name) ?? contract.paging;

const formsByPage = memoize(
  ({ operations }: Contract): ReadonlyMap<string, PageForm> =>
    new Map(
      operations.flatMap(({ returns, paging }) =>
        returns === null || paging === null ? [] : [[returns, paging] as const],
      ),
    ),
);

/** Where a page stands, and how many records there are where the body tells. */
function pageSchema({ names }: Contract, paging: PageForm): JsonSchema {
  const totals = paging.totals === 'body' ? { [names.totalItems]: count } : {};
  const properties =
    paging.style === 'ceiling'
      ? {
          [names.limit]: { ...count, minimum: 1 },
          [names.more]: { type: 'boolean', description: 'Whether there are more than these.' },
          ...totals,
        }
      : paging.style === 'offset'
        ? { [names.offset]: count, [names.limit]: { ...count, minimum: 1 }, ...totals }
        : paging.style === 'cursor'
          ? {
              [names.limit]: { ...count, minimum: 1 },
              [names.next]: { ...cursor, description: 'The cursor of the next page; null at the end.' },
              [names.prev]: {
                ...cursor,
                description: 'The cursor of the page before; null at the beginning.',
              },
              ...totals,
            }
          : {
              [names.number]: { ...count, minimum: 1 },
              [names.size]: { ...count, minimum: 1 },
              ...totals,
              ...(paging.totals === 'body' ? { [names.totalPages]: count } : {}),
            };
  return { type: 'object', properties, required: Object.keys(properties) };
}

/** Where a relation leads: a link, or several. */
function linkTargets(contract: Contract): JsonSchema {
  const link = contract.representation.linkMethods === 'method' ? LINK_WITH_METHOD : LINK;
  return hasSeveral(contract) ? { anyOf: [link, { type: 'array', items: link }] } : link;
}

/** What answers of every contract have in common. */
const sharedSchemas = (contract: Contract): Readonly<Record<string, JsonSchema>> => ({
  links: {
    type: 'object',
    description: 'From each relation (RFC 8288 §2.1) to where it leads.',
    additionalProperties: linkTargets(contract),
  },
  ...Object.fromEntries(
    formsOf(contract).map((form) => [pageName(form.variant), pageSchema(contract, form)]),
  ),
  ...(contract.representation.mediaTypes.includes(HAL) ? { halLinks: HAL_LINKS, halLink: HAL_LINK } : {}),
  ...(contract.operations.some(({ verb }) => verb === 'change') ? { jsonPatch: JSON_PATCH } : {}),
  problem: {
    type: 'object',
    description: 'Problem details (RFC 9457 §3).',
    properties: {
      type: { type: 'string', format: 'uri-reference' },
      title: { type: 'string' },
      status: { type: 'integer', minimum: 400, maximum: 599 },
      detail: { type: 'string' },
      errors: {
        type: 'array',
        items: {
          type: 'object',
          properties: {
            pointer: { type: 'string', description: 'Into the body (RFC 6901).' },
            parameter: { type: 'string', description: 'The name of a query parameter.' },
            code: { type: 'string' },
            message: { type: 'string' },
          },
          required: ['code', 'message'],
        },
      },
    },
    required: ['type', 'title', 'status', 'detail'],
  },
});
