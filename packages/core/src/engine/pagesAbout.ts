import { indexContract, type LinkTarget, type Operation, type Resource } from '../contract/index.js';
import { bareObject, isJsonObject, readJson, type Json, type JsonObject } from '../model/index.js';
import { indexOf, type Service } from './service.js';

/** A page of the mock about itself. */
export interface DocumentationPage {
  readonly mediaType: string;
  readonly text: string;
  /** What it is, for the trace. */
  readonly about: string;
}

export const TEXT = 'text/plain; charset=utf-8';

/** The page that a link of the API itself leads to, by its path under the root; `null` where none does. */
export function pageAbout(service: Service, path: string): DocumentationPage | null {
  for (const resource of service.contract.resources)
    for (const { relation, was, target } of resource.links)
      if (target.kind === 'about' && target.path === path)
        return page(service, was ?? relation, resource, target);
  return null;
}

function page(
  service: Service,
  relation: string,
  resource: Resource,
  { path }: Extract<LinkTarget, { kind: 'about' }>,
): DocumentationPage | null {
  const read = indexOf(service)
    .operationsOf.get(resource.id)
    ?.find(({ method }) => method === 'GET');
  switch (relation) {
    case 'describedby':
      return {
        mediaType: 'application/schema+json',
        text: schemaText(service, read?.returns ?? '', path),
        about: 'the JSON Schema of an answer',
      };
    case 'profile':
      return { mediaType: TEXT, text: profileText(service, read), about: 'the profile of an answer' };
    default:
      return { mediaType: TEXT, text: documentationText(service), about: 'the documentation' };
  }
}

const IN_DOCUMENT = '#/components/schemas/';

/** A schema of the published description as a document of its own (JSON Schema 2020-12), with all it refers to. */
function schemaText(service: Service, shape: string, path: string): string {
  const read = readJson(service.description());
  const document = read.ok && isJsonObject(read.value) ? read.value : bareObject();
  const components = document['components'];
  const schemas =
    isJsonObject(components) && isJsonObject(components['schemas']) ? components['schemas'] : {};
  const defined = new Map<string, Json>();
  const define = (name: string): void => {
    if (defined.has(name) || !Object.hasOwn(schemas, name)) return;
    const schema = schemas[name] ?? null;
    defined.set(name, schema);
    for (const other of referencesIn(schema)) define(other);
  };
  define(shape);
  return JSON.stringify({
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    $id: service.contract.root + path,
    $ref: `#/$defs/${shape}`,
    $defs: Object.fromEntries([...defined].map(([name, schema]) => [name, withDefs(schema)])),
  });
}

function referencesIn(schema: Json): readonly string[] {
  if (Array.isArray(schema)) return (schema as readonly Json[]).flatMap(referencesIn);
  if (!isJsonObject(schema)) return [];
  return Object.entries(schema).flatMap(([name, value]) =>
    name === '$ref' && typeof value === 'string' && value.startsWith(IN_DOCUMENT)
      ? [value.slice(IN_DOCUMENT.length)]
      : referencesIn(value),
  );
}

function withDefs(schema: Json): Json {
  if (Array.isArray(schema)) return (schema as readonly Json[]).map(withDefs);
  if (!isJsonObject(schema)) return schema;
  const own: JsonObject = Object.fromEntries(
    Object.entries(schema).map(([name, value]) => [
      name,
      name === '$ref' && typeof value === 'string' ? value.replace(IN_DOCUMENT, '#/$defs/') : withDefs(value),
    ]),
  );
  return own;
}

/** What the members of an answer are, and what may be done where it is read (RFC 6906). */
function profileText(service: Service, read: Operation | undefined): string {
  const { root } = service.contract;
  const shape = indexOf(service).shapes.get(read?.returns ?? '');
  const members = (shape?.members ?? []).map(({ name, description }) => `  ${name}${said(description)}\n`);
  const resource = indexOf(service).resources.get(read?.resource ?? '');
  const deeds = indexOf(service).operationsOf.get(resource?.id ?? '') ?? [];
  const operations = deeds
    .filter(({ documentation }) => documentation?.isPublished !== false)
    .map(({ method, summary }) => `  ${method.padEnd(6)} ${summary}\n`);
  return `${shape?.name ?? ''}\n\nMembers:\n${members.join('')}\nAt ${root}${resource?.path ?? ''}:\n${operations.join('')}`;
}

const said = (description: string | null | undefined): string =>
  description === null || description === undefined || description === '' ? '' : `: ${description}`;

/** Every operation by its path, in the order of the paths. */
function documentationText({ contract }: Service): string {
  const { title, description, version, root } = contract;
  const lines = contract.resources.flatMap(({ id, path }) =>
    (indexContract(contract).operationsOf.get(id) ?? []).flatMap(({ method, summary, documentation }) =>
      documentation?.isPublished === false ? [] : `${method.padEnd(6)} ${root}${path}: ${summary}\n`,
    ),
  );
  return `${title} ${version}\n${description === null ? '' : `\n${description}\n`}\n${lines.join('')}`;
}
