import { PROBLEM_KINDS, type ProblemKind } from '../http/problem.js';
import { SCHEMAS } from './schemas.js';

interface Described {
  readonly summary: string;
  readonly body?: string;
  readonly status: number;
  /** The name of a schema; a list of it inside `items` where `list` is set. */
  readonly answers?: string;
  readonly list?: boolean;
  readonly stream?: boolean;
  readonly parameters?: readonly (keyof typeof PARAMETERS)[];
  readonly headers?: readonly (keyof typeof HEADERS)[];
  readonly problems: readonly ProblemKind[];
}

const text = { type: 'string' } as const;

const PARAMETERS = {
  limit: {
    name: 'limit',
    in: 'query',
    description: 'How many items a page holds.',
    schema: { type: 'integer', minimum: 1, maximum: 200, default: 50 },
  },
  cursor: {
    name: 'cursor',
    in: 'query',
    description: 'As the next link of an earlier page gives it.',
    schema: text,
  },
  design: { name: 'design', in: 'query', description: 'Only mocks of this design.', schema: text },
  ifMatch: {
    name: 'If-Match',
    in: 'header',
    description: 'The ETag that was read; another one answers 412.',
    schema: text,
  },
  lastEventId: {
    name: 'Last-Event-ID',
    in: 'header',
    description: 'Number of the last exchange seen.',
    schema: text,
  },
} as const;

const HEADERS = {
  ETag: { description: 'The revision (RFC 9110 §8.8.3).', schema: text },
  Location: { description: 'Where the new one is.', schema: text },
  Link: { description: 'The next page, when there is one (RFC 8288).', schema: text },
} as const;

/** Every operation of the application's own interface. A test compares it with the routes there are. */
export const OPERATIONS: Readonly<Record<string, Described>> = {
  'GET /api/openapi.json': { summary: 'This description', status: 200, answers: 'OpenApi', problems: [] },
  'GET /api/problems': {
    summary: 'Read what each type of problem means',
    status: 200,
    answers: 'ProblemKinds',
    problems: [],
  },
  'GET /api/samples': {
    summary: 'List the samples',
    status: 200,
    answers: 'Sample',
    list: true,
    problems: [],
  },
  'GET /api/designs': {
    summary: 'List the designs, latest change first',
    status: 200,
    answers: 'DesignSummary',
    list: true,
    parameters: ['limit', 'cursor'],
    headers: ['Link'],
    problems: ['bad-parameter'],
  },
  'POST /api/designs': {
    summary: 'Create a design',
    body: 'NewDesign',
    status: 201,
    answers: 'Design',
    headers: ['Location', 'ETag'],
    problems: ['invalid', 'too-large', 'media-type', 'unsound'],
  },
  'GET /api/designs/{id}': {
    summary: 'Read a design',
    status: 200,
    answers: 'Design',
    headers: ['ETag'],
    problems: ['not-found'],
  },
  'DELETE /api/designs/{id}': {
    summary: 'Remove a design with its mocks',
    status: 204,
    parameters: ['ifMatch'],
    problems: ['not-found', 'precondition-failed'],
  },
  'GET /api/designs/{id}/model': {
    summary: 'Read the text of a model',
    status: 200,
    answers: 'Model',
    headers: ['ETag'],
    problems: ['not-found'],
  },
  'PUT /api/designs/{id}/model': {
    summary: 'Save the text of a model, errors and all',
    body: 'Model',
    status: 200,
    answers: 'Design',
    parameters: ['ifMatch'],
    headers: ['ETag'],
    problems: ['invalid', 'not-found', 'precondition-failed', 'too-large', 'media-type'],
  },
  'GET /api/designs/{id}/arrangements/{name}': {
    summary: 'Read the settings of an arrangement',
    status: 200,
    answers: 'Arrangement',
    problems: ['not-found'],
  },
  'GET /api/designs/{id}/arrangements/{name}/contract': {
    summary: 'Read what the last sound model implies',
    status: 200,
    answers: 'Contract',
    headers: ['ETag'],
    problems: ['not-found'],
  },
  'GET /api/designs/{id}/arrangements/{name}/openapi.json': {
    summary: 'Read the contract as an OpenAPI 3.1 document',
    status: 200,
    answers: 'OpenApi',
    headers: ['ETag'],
    problems: ['not-found'],
  },
  'GET /api/mocks': {
    summary: 'List the mocks',
    status: 200,
    answers: 'Mock',
    list: true,
    parameters: ['design'],
    problems: [],
  },
  'POST /api/mocks': {
    summary: 'Create a mock and start it',
    body: 'NewMock',
    status: 201,
    answers: 'Mock',
    headers: ['Location'],
    problems: ['invalid', 'not-found', 'conflict', 'media-type'],
  },
  'GET /api/mocks/{id}': { summary: 'Read a mock', status: 200, answers: 'Mock', problems: ['not-found'] },
  'DELETE /api/mocks/{id}': {
    summary: 'Stop a mock and remove it with its records',
    status: 204,
    problems: ['not-found'],
  },
  'POST /api/mocks/{id}/start': {
    summary: 'Start a mock',
    status: 200,
    answers: 'Mock',
    problems: ['not-found', 'conflict'],
  },
  'POST /api/mocks/{id}/stop': {
    summary: 'Stop a mock; its records stay',
    status: 200,
    answers: 'Mock',
    problems: ['not-found'],
  },
  'POST /api/mocks/{id}/reset': {
    summary: 'Put fresh seed records in place of all',
    status: 200,
    answers: 'Mock',
    problems: ['not-found', 'unavailable'],
  },
  'POST /api/mocks/{id}/messages': {
    summary: 'Send a message to a mock as it travels',
    body: 'NewMessage',
    status: 202,
    answers: 'SentMessage',
    problems: ['invalid', 'not-found', 'conflict', 'media-type', 'unavailable'],
  },
  'GET /api/mocks/{id}/exchanges': {
    summary: 'List the exchanges of a mock, newest first',
    status: 200,
    answers: 'ExchangeSummary',
    list: true,
    parameters: ['limit', 'cursor'],
    headers: ['Link'],
    problems: ['not-found', 'bad-parameter'],
  },
  'GET /api/mocks/{id}/exchanges/{number}': {
    summary: 'Read one exchange with its trace',
    status: 200,
    answers: 'Exchange',
    problems: ['not-found'],
  },
  'GET /api/mocks/{id}/events': {
    summary: 'Follow a mock: exchanges and changes as they happen',
    status: 200,
    stream: true,
    parameters: ['lastEventId'],
    problems: ['not-found'],
  },
};

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
      : { requestBody: { required: true, content: json(reference(described.body)) } }),
    responses: { [described.status]: success(described), ...problems(described.problems) },
  };
}

const reference = (name: string): object => ({ $ref: `#/components/schemas/${name}` });
const json = (schema: object): object => ({ 'application/json': { schema } });

function success({ status, answers, list, stream, headers }: Described): object {
  const described = Object.fromEntries((headers ?? []).map((name) => [name, HEADERS[name]]));
  const shape = answers === undefined ? null : reference(answers);
  const body =
    shape === null || list !== true
      ? shape
      : { type: 'object', properties: { items: { type: 'array', items: shape } }, required: ['items'] };
  return {
    description: status === 204 ? 'Done.' : 'As asked.',
    ...(headers === undefined ? {} : { headers: described }),
    ...(body === null ? {} : { content: json(body) }),
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
