import type { Api } from './api.js';

/** The method of an operation and its path, as a template. */
export type RouteKey = keyof Api;

type NamesIn<Path extends string> = Path extends `${string}{${infer Name}}${infer Rest}`
  ? Name | NamesIn<Rest>
  : never;

/** The values of everything that the path of an operation leaves open. */
export type PathParameters<Key extends RouteKey> = Readonly<Record<NamesIn<Key>, string | number>>;

/** `GET` */
export const methodOf = (key: RouteKey): string => key.slice(0, key.indexOf(' '));

/** `/api/designs/{id}` */
export const pathTemplateOf = (key: RouteKey): string => key.slice(key.indexOf(' ') + 1);

/** The path of an operation, and its query. Parameters that are `undefined` are left out. */
export function pathOf<Key extends RouteKey>(
  key: Key,
  parameters: PathParameters<Key>,
  query: Readonly<Record<string, string | number | undefined>> = {},
): string {
  const given = parameters as Readonly<Record<string, string | number>>;
  const path = pathTemplateOf(key).replace(/\{(\w+)\}/g, (_whole, name: string) =>
    encodeURIComponent(given[name] ?? ''),
  );
  const asked = Object.entries(query).flatMap(([name, value]): [string, string][] =>
    value === undefined ? [] : [[name, String(value)]],
  );
  return asked.length === 0 ? path : `${path}?${new URLSearchParams(asked).toString()}`;
}
