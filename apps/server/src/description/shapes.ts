/** What schemas of the application's own interface are made of. */
export const text = { type: 'string' } as const;
export const count = { type: 'integer', minimum: 0 } as const;
export const moment = { type: 'string', format: 'date-time' } as const;
export const uuid = { type: 'string', format: 'uuid' } as const;
export const ref = (name: string): object => ({ $ref: `#/components/schemas/${name}` });
export const list = (items: object): object => ({ type: 'array', items });

export function object(
  properties: Readonly<Record<string, object>>,
  optional: readonly string[] = [],
): object {
  return {
    type: 'object',
    properties,
    required: Object.keys(properties).filter((name) => !optional.includes(name)),
  };
}

export const closed = (schema: object): object => ({ ...schema, additionalProperties: false });
