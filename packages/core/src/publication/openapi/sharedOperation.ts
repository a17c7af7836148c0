import { isJsonObject, type Json, type JsonObject } from '../../model/index.js';
import type { OperationObject } from './operations.js';
import { nameIn } from './schemasIn.js';
import type { SharedComponents } from './share.js';

/** Puts references in the place of parameters. `scope`: what tells those of one name apart, such as their entity. */
export function shareParameters(shared: SharedComponents, scope: string, parameters: Json[]): void {
  for (const [at, parameter] of parameters.entries()) {
    if (!isJsonObject(parameter)) continue;
    const name = nameIn(parameter['name']);
    shared.place('parameters', [name, `${scope}.${name}`], parameter, (stands) => {
      parameters[at] = stands;
    });
  }
}

/** Puts references in the place of the parameters, answers, headers and links of an operation. */
export function shareParts(
  shared: SharedComponents,
  scope: string,
  { parameters, responses }: OperationObject,
): void {
  if (parameters !== undefined) shareParameters(shared, scope, parameters);
  placeEach(responses, (response, status, put) => {
    shared.place('responses', [status, `${status}.${scope}`], response, put, (one) =>
      sharedResponse(shared, scope, one),
    );
  });
}

/** Answers may be those of several operations, and stay as they are. */
function sharedResponse(shared: SharedComponents, scope: string, response: JsonObject): JsonObject {
  const { headers, links } = response;
  const parts: Record<string, Record<string, JsonObject>> = {};
  if (isJsonObject(headers)) {
    parts['headers'] = { ...headers } as Record<string, JsonObject>;
    placeEach(parts['headers'], (header, name, put) => {
      shared.place('headers', [name], header, put);
    });
  }
  if (isJsonObject(links)) {
    parts['links'] = { ...links } as Record<string, JsonObject>;
    placeEach(parts['links'], (link, name, put) => {
      shared.place('links', [`${scope}.${name}`], link, put);
    });
  }
  return { ...response, ...parts };
}

/** Gives each value under a name to what puts something else there. */
function placeEach(
  holder: Record<string, JsonObject>,
  place: (value: JsonObject, name: string, put: (stands: JsonObject) => void) => void,
): void {
  for (const [name, value] of Object.entries(holder))
    place(value, name, (stands) => {
      holder[name] = stands;
    });
}
