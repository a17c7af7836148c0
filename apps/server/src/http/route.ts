import { createRequire } from 'node:module';
import { applyDecorators, HttpCode, RequestMapping, RequestMethod, Sse } from '@nestjs/common';
import { methodOf, pathTemplateOf, type AnswerOf, type Api, type RouteKey } from '@isomeros/api';
import type { Answered } from './answered.js';

interface DescribedResponse {
  readonly headers?: Readonly<Record<string, object>>;
}

interface DescribedOperation {
  readonly responses: Readonly<Record<string, DescribedResponse>>;
}

/** The published description, made of the types of the interface. */
export const API_DESCRIPTION = createRequire(import.meta.url)('@isomeros/api/openapi.json') as {
  readonly info: { readonly version: string };
  readonly paths: Readonly<Record<string, Readonly<Record<string, DescribedOperation>>>>;
};

const statusOf = (key: RouteKey): number => {
  const described = API_DESCRIPTION.paths[pathTemplateOf(key)]?.[methodOf(key).toLowerCase()];
  const status = Object.keys(described?.responses ?? {}).find((code) => code.startsWith('2'));
  if (status === undefined) throw new Error(`${key} is not described.`);
  return Number(status);
};

/** The path of an operation as the router reads it. */
export const routerPath = (key: RouteKey): string => pathTemplateOf(key).replace(/\{(\w+)\}/g, ':$1');

const METHODS: Readonly<Record<string, RequestMethod>> = {
  GET: RequestMethod.GET,
  POST: RequestMethod.POST,
  PUT: RequestMethod.PUT,
  DELETE: RequestMethod.DELETE,
};

type Handler<Answer> = (
  ...given: never[]
) => Answer | Answered<Answer> | Promise<Answer> | Promise<Answered<Answer>>;

type Decorates<Function> = <T extends Function>(
  target: object,
  name: string | symbol,
  descriptor: TypedPropertyDescriptor<T>,
) => void;

const handled: RouteKey[] = [];

/** The operations that some method handles. */
export const handledRoutes = (): readonly RouteKey[] => handled;

function mapped(key: RouteKey): MethodDecorator {
  handled.push(key);
  return applyDecorators(
    RequestMapping({ path: routerPath(key), method: METHODS[methodOf(key)] ?? RequestMethod.ALL }),
    HttpCode(statusOf(key)),
  );
}

/** What a method gives that handles an operation; nothing where nothing is answered. */
type Given<Key extends RouteKey> = Api[Key] extends { readonly answer: unknown }
  ? Handler<AnswerOf<Key>>
  : (...given: never[]) => Promise<void>;

/** Handles an operation of the interface: its method answers what the interface says. */
export const Route = <Key extends RouteKey>(key: Key): Decorates<Given<Key>> => mapped(key);

/** Handles an operation whose answer is text, or written as it is made. */
export const TextRoute = (
  key: RouteKey,
): Decorates<Handler<string> | ((...given: never[]) => Promise<void>)> => mapped(key);

/** Handles an operation that answers events as they happen (Server-Sent Events). */
export function EventRoute(key: RouteKey): MethodDecorator {
  handled.push(key);
  return Sse(routerPath(key));
}

/** The methods that a path takes; none when nothing is described there. */
export function methodsOf(path: string): readonly string[] {
  const given = path.split('/');
  return Object.entries(API_DESCRIPTION.paths).flatMap(([template, operations]) => {
    const parts = template.split('/');
    const fits =
      parts.length === given.length &&
      parts.every((part, index) => part.startsWith('{') || part === given[index]);
    return fits ? Object.keys(operations).map((method) => method.toUpperCase()) : [];
  });
}
