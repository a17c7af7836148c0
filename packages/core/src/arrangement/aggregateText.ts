import {
  AGGREGATES,
  roleOfStep,
  rolesAmong,
  type AggregateKind,
  type Along,
  type ModelIndex,
} from '../model/index.js';
import type { LineReader } from '../notation/index.js';
import { MOST_ALONG, MOST_SCALE, type AggregateEffect, type AlongStep } from './customOperations.js';
import { nameableMembers, namesOf } from './effectNames.js';

/** An aggregate without what it looks for, and the name of the entity whose records it takes together. */
export interface AggregateRead {
  readonly taken: Omit<AggregateEffect, 'filters'>;
  readonly entity: string;
}

/** The aggregate that a line begins with; `null` where it begins with something else. */
export function aggregateAt(reader: LineReader): AggregateKind | null {
  const token = reader.peek();
  return token?.kind === 'word' ? (AGGREGATES.find((name) => name === token.text) ?? null) : null;
}

/**
 * Reads `count of bookings.passengers`, `count`, `sum of bookings.seats`, or `average of price scale 2`, up to `where`;
 * `null` after an error was reported.
 */
export function readAggregate(
  index: ModelIndex,
  reader: LineReader,
  of: AggregateKind,
  from: string,
): AggregateRead | null {
  reader.next();
  const isCounted = of === 'count';
  if (isCounted && !reader.take('of')) return taken(of, [], null, null, from);
  if (!isCounted && !reader.expect('of')) return null;
  const along: AlongStep[] = [];
  let entity = from;
  for (;;) {
    const isLast = reader.peek(1)?.text !== '.';
    if (isLast && !isCounted) break;
    const step = readStep(index, reader, entity);
    if (step === null) return null;
    along.push({ relationship: step.relationship.id, direction: step.direction });
    entity = step.to;
    if (!reader.take('.')) break;
  }
  if (along.length > MOST_ALONG) {
    reader.report('model.too-large', `An aggregate looks along at most ${MOST_ALONG} roles.`, reader.here());
    return null;
  }
  if (isCounted) return taken(of, along, null, null, entity);
  const member = readMember(index, reader, entity);
  if (member === null) return null;
  const scale = of === 'average' ? readScale(reader) : null;
  return of === 'average' && scale === null ? null : taken(of, along, member, scale, entity);
}

const taken = (
  of: AggregateKind,
  along: readonly AlongStep[],
  member: string | null,
  scale: number | null,
  entity: string,
): AggregateRead => ({ taken: { kind: 'aggregate', of, along, member, scale }, entity });

/** The step along the role that the next word names; `null` after an error was reported. */
export function readStep(index: ModelIndex, reader: LineReader, entity: string): Along | null {
  const word = reader.word('a role');
  if (word === null) return null;
  const roles = rolesAmong(index.relationships).get(entity);
  const step = roles?.get(word.text);
  if (step !== undefined) return step;
  const known = [...(roles?.keys() ?? [])];
  const hint = known.length === 0 ? 'It has none.' : `There are ${known.join(', ')}.`;
  reader.report('role.unknown', `${entity} has no role ${word.text}. ${hint}`, word.place);
  return null;
}

function readMember(index: ModelIndex, reader: LineReader, name: string): string | null {
  const word = reader.word('the name of an attribute');
  const entity = index.entities.get(name);
  if (word === null || entity === undefined) return null;
  const found = nameableMembers(index, entity).find((one) => one.name === word.text);
  if (found === undefined) reader.report('role.unknown', `${name} has no ${word.text}.`, word.place);
  return found?.id ?? null;
}

function readScale(reader: LineReader): number | null {
  if (!reader.expect('scale')) return null;
  const token = reader.peek();
  const scale = token?.kind === 'number' ? token.value : NaN;
  if (!Number.isInteger(scale) || scale < 0 || scale > MOST_SCALE) {
    reader.expected(`the digits after the point, from 0 to ${MOST_SCALE}`);
    return null;
  }
  reader.next();
  return scale;
}

/** The text that `readAggregate` reads, and the name of the entity whose records are taken together. */
export function printAggregate(
  index: ModelIndex,
  { of, along, member, scale }: AggregateEffect,
  from: string,
): { readonly text: string; readonly entity: string } {
  let entity = from;
  const path = along.map((step) => {
    const found = roleOfStep(rolesAmong(index.relationships).get(entity), step);
    entity = found?.[1].to ?? '';
    return found?.[0] ?? step.relationship;
  });
  const names = member === null ? path : [...path, namesOf(index, entity)(member)];
  const what = names.length === 0 ? of : `${of} of ${names.join('.')}`;
  return { text: scale === null ? what : `${what} scale ${scale}`, entity };
}
