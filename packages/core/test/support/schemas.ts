import { decimalPlaces } from '@isomeros/core/model';
import type { OpenApiDocument } from '@isomeros/core/publication';
import { Ajv2020 } from 'ajv/dist/2020.js';
import type { Options, ValidateFunction } from 'ajv';
import formats from 'ajv-formats';
import type { Answer } from './mock.js';

interface PublishedResponse {
  readonly content?: Record<string, { schema: object }>;
  readonly headers?: Record<string, { schema: object }>;
}

/** What the media type of a body is (OAS §4.8.21 leaves it out), and what no operation answers. */
const GENERAL = new Set(['content-type', 'allow']);

/** Where they are documented, they are always there. */
const ALWAYS = new Set(['Location', 'WWW-Authenticate']);

/** A validator of published schemas that reckons with decimals as they are written. */
export function exactAjv(options: Options = {}): Ajv2020 {
  const ajv = new Ajv2020({ strict: false, ownProperties: true, ...options });
  (formats as unknown as (ajv: Ajv2020) => void)(ajv);
  ajv.removeKeyword('multipleOf');
  ajv.addKeyword({
    keyword: 'multipleOf',
    type: 'number',
    validate: (step: number, value: number) => decimalPlaces(value) <= decimalPlaces(step),
  });
  return ajv;
}

/** A part of a document with answers, headers, parameters and links in the place of references to them. */
export function resolved(document: OpenApiDocument, part: unknown): unknown {
  if (Array.isArray(part)) return part.map((item: unknown) => resolved(document, item));
  if (typeof part !== 'object' || part === null) return part;
  const referred = '$ref' in part && typeof part.$ref === 'string' ? part.$ref : '';
  const [, section = '', name = ''] =
    /^#\/components\/(responses|headers|parameters|links)\/(.+)$/.exec(referred) ?? [];
  if (section !== '') {
    const components = document['components'] as Record<string, Record<string, unknown>>;
    return resolved(document, components[section]?.[name]);
  }
  return Object.fromEntries(Object.entries(part).map(([key, value]) => [key, resolved(document, value)]));
}

/** Judges answers by the published description: do body and headers fit what is said of their status? */
export class PublishedSchemas {
  private readonly ajv = exactAjv({ allErrors: true });
  private readonly compiled = new Map<string, ValidateFunction>();
  private readonly responses = new Map<string, Record<string, PublishedResponse>>();

  constructor(document: OpenApiDocument) {
    this.ajv.addSchema({ $id: 'doc', components: document['components'] });
    const whole = resolved(document, document) as {
      readonly paths: Record<string, Record<string, { operationId: string; responses: never }>>;
    };
    for (const item of Object.values(whole.paths)) {
      for (const [method, operation] of Object.entries(item)) {
        if (method !== 'parameters') this.responses.set(operation.operationId, operation.responses);
      }
    }
  }

  /** What is wrong with an answer of an operation, or `null`. A later contract `mayAdd` headers. */
  problemWith(operation: string, answer: Answer, mayAdd = false): string | null {
    const response = this.responses.get(operation)?.[String(answer.status)];
    if (response === undefined) return `${operation} does not document ${answer.status}`;
    const header = this.headerProblem(response, answer, mayAdd);
    if (header !== null) return `${operation} ${answer.status}: ${header}`;
    if (response.content === undefined)
      return answer.body === null ? null : `${operation} ${answer.status} documents no body`;
    // A client that prefers no body gets none, whatever is documented (RFC 7240 §4.2).
    if (answer.body === null && answer.headers.get('preference-applied') === 'return=minimal') return null;
    const [type = ''] = (answer.headers.get('content-type') ?? '').split(';');
    const schema = response.content[type]?.schema;
    if (schema === undefined) return `${operation} ${answer.status} does not document ${type}`;
    const validate = this.compile(JSON.stringify(schema).replaceAll('"#/components', '"doc#/components'));
    return validate(answer.body)
      ? null
      : `${operation} ${answer.status}: ${this.ajv.errorsText(validate.errors)}`;
  }

  private headerProblem({ headers = {} }: PublishedResponse, answer: Answer, mayAdd: boolean): string | null {
    const documented = new Map(
      Object.entries(headers).map(([name, { schema }]) => [name.toLowerCase(), schema]),
    );
    for (const [name, value] of answer.headers) {
      const schema = documented.get(name);
      if (schema === undefined && !mayAdd && !GENERAL.has(name))
        return `the header ${name} is not documented`;
      if (schema === undefined) continue;
      const validate = this.compile(JSON.stringify(schema));
      const read: unknown = 'type' in schema && schema.type === 'integer' ? Number(value) : value;
      if (!validate(read)) return `${name}: ${value} ${this.ajv.errorsText(validate.errors)}`;
    }
    const missing = Object.keys(headers).find(
      (name) => ALWAYS.has(name) && !answer.headers.has(name.toLowerCase()),
    );
    return missing === undefined ? null : `the header ${missing} is missing`;
  }

  private compile(schema: string): ValidateFunction {
    let known = this.compiled.get(schema);
    if (known === undefined) {
      known = this.ajv.compile(JSON.parse(schema) as object);
      this.compiled.set(schema, known);
    }
    return known;
  }
}
