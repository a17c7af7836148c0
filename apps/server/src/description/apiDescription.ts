import { PROBLEM_KINDS, type ProblemKind } from '../http/problem.js';
import { HEADERS, PARAMETERS, type Described } from './described.js';
import { DESIGN_OPERATIONS } from './designOperations.js';
import { MOCK_OPERATIONS } from './mockOperations.js';
import { SCHEMAS } from './schemas.js';

/** Every operation of the application's own interface. A test compares it with the routes there are. */
export const OPERATIONS: Readonly<Record<string, Described>> = { ...DESIGN_OPERATIONS, ...MOCK_OPERATIONS };

const text = { type: 'string' } as const;

/** The methods that a path takes; none when nothing is described there. */
export function methodsOf(path: string): readonly string[] {
  const given = path.split('/');
  return Object.keys(OPERATIONS).flatMap((key) => {
    const [method = '', template = ''] = key.split(' ');
    const parts = template.split('/');
    const fits =
      parts.length === given.length &&
      parts.every((part, index) => part.startsWith('{') || part === given[index]);
    return fits ? [method] : [];
  });
}

/** The OpenAPI 3.1 document of the application's own interface. */
export function apiDescription(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [key, described] of Object.entries(OPERATIONS)) {
    const [method = '', path = ''] = key.split(' ');
    const item = (paths[path] ??= {});
    item[method.toLowerCase()] = operationObject(path, described);
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
    components: { schemas: SCHEMAS },
  };
}

function operationObject(path: string, described: Described): object {
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: text,
  }));
  const parameters = [...inPath, ...(described.parameters ?? []).map((name) => PARAMETERS[name])];
  return {
    summary: described.summary,
    ...(parameters.length === 0 ? {} : { parameters }),
    ...(described.body === undefined
      ? {}
      : { requestBody: { required: true, content: bodyContent(described.body, described.bodyMedia) } }),
    responses: {
      [described.status]: success(described),
      ...(described.creates === true
        ? { 201: success({ ...described, status: 201, headers: [...(described.headers ?? []), 'Location'] }) }
        : {}),
      ...problems(described.problems),
    },
  };
}

const reference = (name: string): object => ({ $ref: `#/components/schemas/${name}` });
const json = (schema: object): object => ({ 'application/json': { schema } });

const bodyContent = (body: string, media: string | undefined): object => ({
  ...json(reference(body)),
  ...(media === undefined ? {} : { [media]: { schema: text } }),
});

function success({ status, answers, list, stream, media, headers }: Described): object {
  const described = Object.fromEntries((headers ?? []).map((name) => [name, HEADERS[name]]));
  const shape = answers === undefined ? null : reference(answers);
  const body =
    shape === null || list !== true
      ? shape
      : { type: 'object', properties: { items: { type: 'array', items: shape } }, required: ['items'] };
  return {
    description: status === 204 ? 'Done.' : 'As asked.',
    ...(headers === undefined ? {} : { headers: described }),
    ...(body === null && media === undefined
      ? {}
      : {
          content: {
            ...(body === null ? {} : json(body)),
            ...(media === undefined ? {} : { [media]: { schema: text } }),
          },
        }),
    ...(stream === true ? { content: { 'text/event-stream': { schema: text } } } : {}),
  };
}

function problems(kinds: readonly ProblemKind[]): object {
  const byStatus = new Map<number, string[]>();
  for (const kind of kinds) {
    const { status, title } = PROBLEM_KINDS[kind];
    byStatus.set(status, [...(byStatus.get(status) ?? []), title]);
  }
  const content = { 'application/problem+json': { schema: reference('Problem') } };
  return Object.fromEntries(
    [...byStatus].map(([status, titles]) => [
      String(status),
      { description: `${titles.join(', or ')}.`, content },
    ]),
  );
}
