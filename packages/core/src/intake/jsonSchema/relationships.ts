import { singular, withArticle, type Relationship } from '../../model/index.js';
import { asMemberName, memberBeside, Names, ownsMany, pairsWith, refersTo } from '../build.js';
import type { SourceLines } from '../lines.js';
import { assumed, instead } from '../report.js';
import { isNullable, type Definition } from './definitions.js';
import type { SchemaReading } from './members.js';
import type { Schema } from './schemas.js';

/** A property of an entity that leads to another one. */
interface Edge {
  readonly from: Definition;
  readonly to: Definition;
  readonly property: string;
  readonly role: string;
  readonly many: boolean;
  readonly required: boolean;
  readonly lines: SourceLines;
}

export interface Joined {
  readonly relationships: readonly Relationship[];
  /** The relationships that properties are, by their entity. */
  readonly taken: ReadonlyMap<Definition, ReadonlyMap<string, string>>;
}

/** The relationships between entities. Two properties that lead to each other are the two ends of one. */
export function joinEntities(reading: SchemaReading): Joined {
  const names = new Names();
  const edges = [...reading.entities].flatMap((definition) =>
    [...definition.properties].flatMap(([property, schema]) => {
      const edge = edgeOf(reading, definition, property, schema);
      if (edge === null) return [];
      const role = memberBeside((one) => names.has(definition.name, one), edge.role);
      names.take(definition.name, role);
      return [{ ...edge, role }];
    }),
  );
  const taken = new Map([...reading.entities].map((one) => [one, new Map<string, string>()]));
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
    const relationship = relationshipOf(reading, edges, edge, inverse, owned);
    relationships.push(relationship);
    for (const one of inverse === null ? [edge] : [edge, inverse])
      taken.get(one.from)?.set(one.property, relationship.id);
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
      property,
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
    : { from, to, property, role: asMemberName(stem, 'other'), many: false, required, lines };
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
      owns.id,
    );
  return owns;
}
