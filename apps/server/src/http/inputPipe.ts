import { escapePointer } from '@isomeros/core/arrangement';
import type { ProblemDetail } from '@isomeros/core/engine';
import { isJsonObject, type Json } from '@isomeros/core/model';
import { Injectable, type ArgumentMetadata, type PipeTransform } from '@nestjs/common';
import { getMetadataStorage, validateSync, type ValidationError } from 'class-validator';
import { nestedClass, type InputClass } from './nested.js';
import { ApiProblem } from './problem.js';

/** So many things that do not fit are told one by one. */
const MOST_DETAILS = 100;

/** Objects of their own in one array. */
const MOST_ITEMS = 1_000;

/**
 * Checks a JSON body, or query parameters, against their class (class-validator) and gives an object of that class.
 * Only members that the class knows are taken over, as they came: names are never looked up in anything but the input
 * itself, and the time it takes is in proportion to it.
 */
@Injectable()
export class InputPipe implements PipeTransform<Json | undefined, unknown> {
  transform(value: Json | undefined, { type, metatype }: ArgumentMetadata): unknown {
    if (!isInputClass(metatype)) return value;
    if (type === 'query') return readQuery(metatype, value ?? {});
    return type === 'body' ? readBody(metatype, value ?? {}) : value;
  }
}

/** One thing that does not fit, and where. */
type PointedError = Extract<ProblemDetail, { readonly pointer: string }>;

function readBody(of: InputClass, value: Json): object {
  const problems: PointedError[] = [];
  const body = fill(of, value, '', problems);
  if (body === null) {
    const message = 'Expected a JSON object.';
    throw invalid([{ pointer: '', code: 'type', message }]);
  }
  const errors = validateSync(body, { stopAtFirstError: true, forbidUnknownValues: false });
  const details = [...problems, ...errors.flatMap((error) => detailsOf(error, ''))];
  if (details.length > 0) throw invalid(details);
  return body;
}

/** The token that opens the pages may stand in any query. */
const TOKEN = 'token';

function readQuery(of: InputClass, value: Json): object {
  const problems: PointedError[] = [];
  const given = Object.entries(isJsonObject(value) ? value : {}).filter(([name]) => name !== TOKEN);
  const query = fill(of, Object.fromEntries(given), '', problems) ?? {};
  const errors = validateSync(query, { stopAtFirstError: true, forbidUnknownValues: false });
  const details = [...problems, ...errors.flatMap((error) => detailsOf(error, ''))].map(
    ({ pointer, code, message }): ProblemDetail => ({
      parameter: unescapePointer(pointer.slice(1)),
      code,
      message:
        code === 'unknown' ? `There is no parameter ${unescapePointer(pointer.slice(1))} here.` : message,
    }),
  );
  const [first] = details;
  if (first === undefined) return query;
  throw new ApiProblem('bad-parameter', first.message, { errors: details.slice(0, MOST_DETAILS) });
}

const isInputClass = (type: unknown): type is InputClass =>
  typeof type === 'function' && membersOf(type as InputClass).size > 0;

/** The members a class has validators for. */
export function membersOf(of: InputClass): ReadonlySet<string> {
  const rules = getMetadataStorage().getTargetValidationMetadatas(of, '', false, false);
  return new Set(rules.map(({ propertyName }) => propertyName));
}
/** An object of a class with the members of a value; `null` where that is no object. */
function fill(of: InputClass, value: Json, pointer: string, problems: PointedError[]): object | null {
  if (!isJsonObject(value)) return null;
  const known = membersOf(of);
  const body = new of() as Record<string, unknown>;
  for (const [name, member] of Object.entries(value)) {
    const at = `${pointer}/${escapePointer(name)}`;
    if (known.has(name)) body[name] = fillMember(nestedClass(of, name), member, at, problems);
    else if (problems.length < MOST_DETAILS)
      problems.push({ pointer: at, code: 'unknown', message: `There is no member ${name} to send here.` });
  }
  return body;
}

/** What is no object where one is expected stays as it came, for its validators to say so. */
function fillMember(of: InputClass | null, value: Json, at: string, problems: PointedError[]): unknown {
  if (of === null) return value;
  if (!Array.isArray(value)) return fill(of, value, at, problems) ?? value;
  if (value.length > MOST_ITEMS) {
    problems.push({ pointer: at, code: 'length', message: `Expected at most ${MOST_ITEMS} items.` });
    return [];
  }
  return (value as readonly Json[]).map((item, index) => fill(of, item, `${at}/${index}`, problems) ?? item);
}

function invalid(details: readonly PointedError[]): ApiProblem {
  const detail =
    details.length === 1
      ? 'One thing in the body does not fit.'
      : `${details.length >= MOST_DETAILS ? `${MOST_DETAILS} or more` : details.length} things in the body do not fit.`;
  return new ApiProblem('invalid', detail, { errors: details.slice(0, MOST_DETAILS) });
}

function detailsOf(error: ValidationError, above: string): PointedError[] {
  const pointer = `${above}/${escapePointer(error.property)}`;
  const own = Object.entries(error.constraints ?? {}).map(([code, message]) => ({ pointer, code, message }));
  return [...own, ...(error.children ?? []).flatMap((child) => detailsOf(child, pointer))];
}

const unescapePointer = (part: string): string => part.replaceAll('~1', '/').replaceAll('~0', '~');
