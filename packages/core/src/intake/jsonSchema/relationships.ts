import { singular, withArticle, type Relationship } from '../../model/index.js';
import { asMemberName, Names, ownsMany, pairsWith, refersTo } from '../build.js';
import { assumed, instead, type SourceLines } from '../report.js';
import { isNullable, type Definition } from './definitions.js';
import type { SchemaReading } from './members.js';
import type { Schema } from './schemas.js';

/** A property of an entity that leads to another one. */
interface Edge {
  readonly from: Definition;
  readonly to: Definition;
  readonly role: string;
  readonly many: boolean;
  readonly required: boolean;
  readonly lines: SourceLines;
}

export interface Joined {
  readonly relationships: readonly Relationship[];
  /** Properties that are no attributes, by their entity. */
  readonly taken: ReadonlyMap<Definition, ReadonlySet<string>>;
}

/** The relationships between entities. Two properties that lead to each other are the two ends of one. */
export function joinEntities(reading: SchemaReading): Joined {
  const names = new Names();
  const taken = new Map<Definition, Set<string>>();
  const edges = [...reading.entities].flatMap((definition) => {
    const properties = new Set<string>();
    taken.set(definition, properties);
    return [...definition.properties].flatMap(([property, schema]) => {
      const edge = edgeOf(reading, definition, property, schema);
      if (edge === null || !names.take(definition.name, edge.role))
        return edge === null ? [] : (properties.add(property), []);
      properties.add(property);
      return [edge];
    });
  });
  const owned = new Set<Definition>();
  const done = new Set<Edge>();
  const relationships: Relationship[] = [];
  for (const edge of [...edges.filter(({ many }) => many), ...edges]) {
    if (done.has(edge)) continue;
    done.add(edge);
    const inverses = edges.filter(
      (other) => other !== edge && !done.has(other) && other.from === edge.to && other.to === edge.from,
    );
    const rivals = edges.filter((other) => other.from === edge.from && other.to === edge.to);
    const inverse = inverses.length === 1 && rivals.length === 1 ? (inverses[0] ?? null) : null;
    if (inverse !== null) done.add(inverse);
    relationships.push(relationshipOf(reading, edges, edge, inverse, owned));
  }
  return { relationships, taken };
}

function edgeOf(reading: SchemaReading, from: Definition, property: string, schema: Schema): Edge | null {
  const lines = reading.document.linesOf(schema);
  const required = from.required.has(property) && !isNullable(schema);
  const lead = reading.definitions.referenceIn(schema);
  if (lead !== null) {
    if (!reading.entities.has(lead.definition)) return null;
    return {
      from,
      to: lead.definition,
      role: asMemberName(property, 'other'),
      many: lead.many,
      required,
      lines,
    };
  }
  const stem = /^(.+?)_?(?:id|uuid|code|key)$/i.exec(property)?.[1];
  if (stem === undefined) return null;
  const to = [...reading.entities].find(
    ({ name }) => asMemberName(name, '') === asMemberName(stem, '') && name !== from.name,
  );
  return to === undefined
    ? null
    : { from, to, role: asMemberName(stem, 'other'), many: false, required, lines };
}

function relationshipOf(
  { report }: SchemaReading,
  edges: readonly Edge[],
  edge: Edge,
  inverse: Edge | null,
  owned: Set<Definition>,
): Relationship {
  const [from, to] = [edge.from.name, edge.to.name];
  const back = inverse?.role ?? null;
  const joined = { from, to, role: edge.role, back };
  if (!edge.many) {
    const refers = refersTo(joined, edge.required);
    report.understand(refers.id, edge.lines, edge.required ? 'a required reference' : 'a reference');
    return refers;
  }
  const lists = edges.filter((other) => other.many && other.to === edge.to).length;
  const isOneToMany = inverse === null ? lists === 1 : !inverse.many;
  if (!isOneToMany) {
    const pairs = pairsWith(joined);
    report.understand(pairs.id, edge.lines, 'a list of what other lists hold too');
    return pairs;
  }
  if (owned.has(edge.to) || inverse?.required === false) {
    const role = back ?? asMemberName(from, 'owner');
    const refers = refersTo({ from: to, to: from, role, back: edge.role }, inverse?.required === true);
    report.understand(refers.id, edge.lines, 'a list of what may stand alone');
    return refers;
  }
  owned.add(edge.to);
  const owns = ownsMany(joined);
  report.understand(
    owns.id,
    edge.lines,
    inverse === null ? 'a list that nothing else holds' : 'a list of what requires it',
  );
  if (edge.from !== edge.to)
    report.ask(
      edge.lines,
      `Can ${withArticle(singular(to))} exist without its ${from}?`,
      inverse === null
        ? `Only ${from}.${edge.role} lists it.`
        : `${from}.${edge.role} lists it, and ${inverse.role} is required.`,
      [
        assumed('no, it is owned'),
        instead('yes, it refers to it', { kind: 'turn-around', relationship: owns.id }),
      ],
    );
  return owns;
}
