import { isJsonObject, type Json, type JsonObject } from '../../model/index.js';
import { nameIn } from './schemasIn.js';
import type { SharedComponents } from './share.js';

/** Parameters as references. `scope`: what tells those of one name apart, such as the entity they are about. */
export const sharedParameters = (
  shared: SharedComponents,
  scope: string,
  parameters: readonly Json[],
): readonly Json[] =>
  parameters.map((parameter) => {
    if (!isJsonObject(parameter)) return parameter;
    const name = nameIn(parameter['name']);
    return shared.refer('parameters', [name, `${scope}.${name}`], parameter);
  });

/** An operation whose parameters, answers, headers and links are references. */
export function sharedOperation(shared: SharedComponents, scope: string, operation: JsonObject): JsonObject {
  const { parameters, responses } = operation;
  return {
    ...operation,
    ...(Array.isArray(parameters)
      ? { parameters: sharedParameters(shared, scope, parameters as readonly Json[]) }
      : {}),
    responses: mapped(responses, (response, status) =>
      shared.refer('responses', [status, `${status}.${scope}`], response, (one) =>
        sharedResponse(shared, scope, one),
      ),
    ),
  };
}

function sharedResponse(shared: SharedComponents, scope: string, response: JsonObject): JsonObject {
  const { headers, links } = response;
  return {
    ...response,
    ...(headers === undefined
      ? {}
      : { headers: mapped(headers, (header, name) => shared.refer('headers', [name], header)) }),
    ...(links === undefined
      ? {}
      : { links: mapped(links, (link, name) => shared.refer('links', [`${scope}.${name}`], link)) }),
  };
}

/** What is under names, each as `as` gives it. */
const mapped = (of: Json | undefined, as: (value: JsonObject, name: string) => JsonObject): JsonObject =>
  Object.fromEntries(
    Object.entries((of ?? {}) as JsonObject).map(([name, value]) => [name, as(value as JsonObject, name)]),
  );
