// The description of the application's own interface (OpenAPI 3.1), made of the types in packages/api.
// `npm run api` writes it to packages/api/openapi.json; a test compares the two.
import { writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import TJS from 'typescript-json-schema';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const source = join(root, 'packages/api/src');
const FILE = join(root, 'packages/api/openapi.json');

const HEADERS = {
  ETag: { description: 'The revision (RFC 9110 §8.8.3).', schema: { type: 'string' } },
  Location: { description: 'Where the new one is.', schema: { type: 'string' } },
  Link: { description: 'The next page, when there is one (RFC 8288).', schema: { type: 'string' } },
};

const IF_MATCH = {
  name: 'If-Match',
  in: 'header',
  description: 'The ETag that was read; another one answers 412.',
  schema: { type: 'string' },
};

const LAST_EVENT_ID = {
  name: 'Last-Event-ID',
  in: 'header',
  description: 'Number of the last exchange seen.',
  schema: { type: 'string' },
};

const KNOWN = new Set([
  'query',
  'body',
  'bodyMedia',
  'answer',
  'answerMedia',
  'status',
  'creates',
  'ifMatch',
  'lastEventId',
  'headers',
  'problems',
]);

/** The document, from the types as they are compiled. `problemKinds` are status and title of each kind. */
export function describeApi(problemKinds) {
  const { routes, schemas } = readTypes();
  const paths = {};
  for (const [key, route] of Object.entries(routes)) {
    const [method, path] = key.split(' ');
    const described = operation(path, key, route, { problemKinds, schemas });
    paths[path] = { ...paths[path], [method.toLowerCase()]: described };
  }
  return {
    openapi: '3.1.1',
    info: {
      title: 'Isomeros',
      version: '0.1.0',
      description: 'Designs, what they imply, and the mocks that serve it.',
    },
    servers: [{ url: '/' }],
    paths,
    components: { schemas },
  };
}

function readTypes() {
  const program = TJS.programFromConfig(join(root, 'packages/api/tsconfig.json'), [join(source, 'index.ts')]);
  const settings = {
    required: true,
    strictNullChecks: true,
    ignoreErrors: true,
    ref: true,
    topRef: false,
  };
  const generator = TJS.buildGenerator(program, settings);
  const api = generator.getSchemaForSymbol('Api');
  const problem = generator.getSchemaForSymbol('ProblemBody');
  const definitions = { ...api.definitions, ...problem.definitions };
  const names = namesOf(definitions);
  const schemas = {};
  for (const [long, name] of names) schemas[name] = cleaned(definitions[long], names, definitions);
  schemas.ProblemBody = cleaned(without(problem, 'definitions', '$schema'), names, definitions);
  const sorted = Object.fromEntries(Object.entries(schemas).sort(([a], [b]) => (a < b ? -1 : 1)));
  return { routes: cleaned({ properties: api.properties }, names, definitions).properties, schemas: sorted };
}

const UTILITIES = new Set(['Exclude', 'Extract', 'Omit', 'Partial', 'Pick', 'Readonly', 'Record']);

/** Short names of types; two types of one name would be told apart by nobody. What a type is made of has none. */
function namesOf(definitions) {
  const names = new Map();
  const taken = new Map();
  for (const [long, schema] of Object.entries(definitions)) {
    const name = long.replace(/import\("[^"]*"(?:,\{[^}]*\{[^}]*\}\})?\)\./g, '');
    if (!/^\w+$/.test(name) || UTILITIES.has(name)) continue;
    const other = taken.get(name);
    if (other !== undefined && JSON.stringify(definitions[other]) !== JSON.stringify(schema))
      throw new Error(`There are two types ${name}: ${other} and ${long}.`);
    taken.set(name, long);
    names.set(long, name);
  }
  return names;
}

/** JSON Schema 2020-12 of what the generator gives for an earlier draft. */
function cleaned(value, names, definitions) {
  if (Array.isArray(value)) return value.map((item) => cleaned(item, names, definitions));
  if (typeof value !== 'object' || value === null) return value;
  const result = {};
  for (const [name, member] of Object.entries(value)) {
    if (name === '$ref') {
      const long = decodeURIComponent(member.slice('#/definitions/'.length));
      const short = names.get(long);
      if (short === undefined) Object.assign(result, cleaned(definitions[long], names, definitions));
      else result.$ref = `#/components/schemas/${short}`;
    } else if (name === 'properties')
      result.properties = Object.fromEntries(
        Object.entries(member).map(([property, schema]) => [property, cleaned(schema, names, definitions)]),
      );
    else if (name === 'description') result.description = member.replace(/\s*\n\s*/g, ' ');
    else result[name] = cleaned(member, names, definitions);
  }
  return closed(merged(result));
}

const without = (object, ...names) =>
  Object.fromEntries(Object.entries(object).filter(([name]) => !names.includes(name)));

/** What is made of several inline objects is one object. */
function merged(schema) {
  const parts = schema.allOf;
  if (parts === undefined || parts.some((part) => part.$ref !== undefined || part.properties === undefined))
    return schema;
  return {
    ...without(schema, 'allOf'),
    type: 'object',
    properties: Object.assign({}, ...parts.map((part) => part.properties)),
    required: parts.flatMap((part) => part.required ?? []).sort(),
  };
}

/** Objects have the members of their type, and no others. */
const closed = (schema) =>
  schema.properties === undefined || schema.allOf !== undefined || schema.additionalProperties !== undefined
    ? schema
    : { ...schema, additionalProperties: false };

function operation(path, key, { description, properties }, { problemKinds, schemas }) {
  const unknown = Object.keys(properties).find((name) => !KNOWN.has(name));
  if (unknown !== undefined) throw new Error(`${key} says ${unknown}, which the description does not know.`);
  const said = (name) => properties[name]?.const ?? properties[name]?.enum?.[0];
  const all = (name) =>
    properties[name]?.enum ?? (properties[name] === undefined ? [] : [properties[name].const]);
  const headers = all('headers');
  const status = said('status') ?? 200;
  const answered = success(status, properties.answer, all('answerMedia'), headers);
  return {
    summary: description,
    ...parametersOf(path, properties, schemas),
    ...bodyOf(properties.body, all('bodyMedia')),
    responses: {
      [status]: answered,
      ...(said('creates') === true
        ? {
            201: success(201, properties.answer, all('answerMedia'), [...new Set([...headers, 'Location'])]),
          }
        : {}),
      ...problemsOf(all('problems'), problemKinds),
    },
  };
}

function parametersOf(path, { query, ifMatch, lastEventId }, schemas) {
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const inQuery = queryMembers(query, schemas).map(([name, { description, ...schema }]) => ({
    name,
    in: 'query',
    ...(description === undefined ? {} : { description }),
    schema,
  }));
  const inHeader = [
    ...(ifMatch === undefined ? [] : [IF_MATCH]),
    ...(lastEventId === undefined ? [] : [LAST_EVENT_ID]),
  ];
  const parameters = [...inPath, ...inQuery, ...inHeader];
  return parameters.length === 0 ? {} : { parameters };
}

function queryMembers(query, schemas) {
  if (query === undefined) return [];
  if (query.$ref !== undefined) return queryMembers(schemas[query.$ref.split('/').pop()], schemas);
  const own = Object.entries(query.properties ?? {});
  return [...own, ...(query.allOf ?? []).flatMap((part) => queryMembers(part, schemas))];
}

/** Bodies in JSON, and as text of some media types. */
const content = (schema, media) => ({
  ...(schema === undefined ? {} : { 'application/json': { schema } }),
  ...Object.fromEntries(media.map((type) => [type, { schema: { type: 'string' } }])),
});

const bodyOf = (body, media) =>
  body === undefined ? {} : { requestBody: { required: true, content: content(body, media) } };

function success(status, answer, media, headers) {
  const described = Object.fromEntries(headers.map((name) => [name, HEADERS[name]]));
  return {
    description: status === 204 ? 'Done.' : 'As asked.',
    ...(headers.length === 0 ? {} : { headers: described }),
    ...(answer === undefined && media.length === 0 ? {} : { content: content(answer, media) }),
  };
}

function problemsOf(kinds, problemKinds) {
  const byStatus = new Map();
  for (const kind of kinds) {
    const { status, title } = problemKinds[kind];
    byStatus.set(status, [...(byStatus.get(status) ?? []), title]);
  }
  const schema = { $ref: '#/components/schemas/ProblemBody' };
  return Object.fromEntries(
    [...byStatus].map(([status, titles]) => [
      String(status),
      { description: `${titles.join(', or ')}.`, content: { 'application/problem+json': { schema } } },
    ]),
  );
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { PROBLEM_KINDS } = await import('@isomeros/api');
  writeFileSync(FILE, `${JSON.stringify(describeApi(PROBLEM_KINDS), null, 2)}\n`);
  console.log(`Written to ${relative(root, FILE)}.`);
}
