import { API_DESCRIPTION } from '../../src/http/route.js';

/** An operation as the published description has it. */
export interface Operation {
  readonly summary?: string;
  readonly parameters?: readonly { readonly in: string; readonly name: string }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Schema }>> };
  readonly responses: Readonly<
    Record<string, { readonly content?: Readonly<Record<string, { readonly schema: Schema }>> }>
  >;
}

export interface Schema {
  readonly $ref?: string;
  readonly properties?: Readonly<Record<string, unknown>>;
  readonly allOf?: readonly Schema[];
}

/** The published description of the application's own interface. */
export const document = API_DESCRIPTION as unknown as {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components: { readonly schemas: Readonly<Record<string, Schema>> };
};

/** Every operation by its method and path. */
export const operations = Object.entries(document.paths).flatMap(([path, item]) =>
  Object.entries(item).map(([method, operation]) => [`${method.toUpperCase()} ${path}`, operation] as const),
);
export const operationOf = (key: string): Operation | undefined =>
  operations.find(([known]) => known === key)?.[1];
