import { isJsonObject, readJson, type Json } from '../../model/index.js';
import { reasonPhrase } from '../../contract/index.js';
import type { PublishedExample } from '../source.js';

/** Of a list so many are shown. */
const MOST_ITEMS = 1;

/** An exchange as it travels; of long lists the first is shown. */
export function exampleText(example: PublishedExample): string {
  const { method, target, requestHeaders, requestBody, status, responseHeaders, responseBody } = example;
  const request = [...requestHeaders].map(([name, value]) => `${name}: ${value}`);
  const response = responseHeaders.map(([name, value]) => `${name}: ${value}`);
  return [
    `${method} ${target} HTTP/1.1`,
    ...request,
    ...bodyLines(requestBody),
    '',
    `HTTP/1.1 ${status} ${reasonPhrase(status)}`,
    ...response,
    ...bodyLines(responseBody),
  ].join('\n');
}

function bodyLines(body: string | null): readonly string[] {
  if (body === null) return [];
  const read = readJson(body);
  return ['', read.ok ? printed(read.value, '') : body];
}

/** JSON over several lines, as much of it as shows what the rest is like. */
function printed(value: Json, indent: string): string {
  const deeper = `${indent}  `;
  if (Array.isArray(value)) {
    const all = value as readonly Json[];
    if (all.every((item) => typeof item !== 'object' || item === null)) return JSON.stringify(all);
    const shown = all.slice(0, MOST_ITEMS).map((item) => deeper + printed(item, deeper));
    const more = all.length - shown.length;
    return `[\n${shown.join(',\n')}${more > 0 ? `,\n${deeper}… ${more} more` : ''}\n${indent}]`;
  }
  if (!isJsonObject(value)) return JSON.stringify(value);
  const members = Object.entries(value).map(([name, inner]) => {
    const text = JSON.stringify(inner);
    const isShort = isJsonObject(inner) && text.length <= LONGEST_LINE;
    return `${deeper}${JSON.stringify(name)}: ${isShort ? text : printed(inner, deeper)}`;
  });
  return members.length === 0 ? '{}' : `{\n${members.join(',\n')}\n${indent}}`;
}

const LONGEST_LINE = 72;
