import { typesOf } from './schemas.js';
import { asMemberName } from '../build.js';
import type { Definition, Definitions, SchemaReference } from './definitions.js';

const KEYS = ['id', 'uuid', 'key', 'code'];

/** The property by which an object is told from others of its kind; `null` where it has none. */
export function keyProperty({ name, properties, required }: Definition): string | null {
  const own = asMemberName(name, 'thing');
  const candidates = [...KEYS, `${own}Id`, `${own.toLowerCase()}_id`];
  const found = candidates.find((candidate) => {
    const types = typesOf(properties.get(candidate) ?? {});
    const isScalar = types.length === 0 || types[0] === 'string' || types[0] === 'integer';
    return properties.has(candidate) && isScalar && (candidate !== 'code' || required.has('code'));
  });
  return found ?? null;
}

/** What each object leads to. */
type Leads = ReadonlyMap<Definition, readonly SchemaReference[]>;

const leadsOf = (definitions: Definitions): Leads =>
  new Map(
    definitions
      .all()
      .map((definition) => [
        definition,
        [...definition.properties.values()].flatMap((schema) => definitions.referenceIn(schema) ?? []),
      ]),
  );

/** Objects that only others are composed of: they are nothing of their own. */
export function findParts(definitions: Definitions): ReadonlySet<Definition> {
  const used = new Set([...leadsOf(definitions).values()].flat().map(({ definition }) => definition));
  return new Set(
    definitions
      .all()
      .filter(
        (definition) =>
          definitions.isPart(definition) && !used.has(definition) && keyProperty(definition) === null,
      ),
  );
}

/**
 * Which objects have an identity of their own and are entities; the others are values. An object without a
 * key is an entity all the same when it stands at the top and nothing has it, when a list holds it, when it
 * leads to an entity, or when it contains itself.
 */
export function findEntities(definitions: Definitions): ReadonlySet<Definition> {
  const all = definitions.all();
  const leads = leadsOf(definitions);
  const parts = findParts(definitions);
  const used = new Set([...leads.values()].flat().map(({ definition }) => definition));
  const listed = listedOnce(leads);
  const entities = new Set(
    all.filter(
      (definition) =>
        keyProperty(definition) !== null ||
        listed.has(definition) ||
        (definition.isTop && !used.has(definition) && !parts.has(definition)),
    ),
  );
  for (let changed = true; changed;) {
    changed = false;
    for (const definition of all) {
      if (entities.has(definition)) continue;
      const targets = (leads.get(definition) ?? []).map((lead) => lead.definition);
      if (!targets.some((target) => entities.has(target)) && !containsItself(definition, leads)) continue;
      entities.add(definition);
      changed = true;
    }
  }
  return entities;
}

/** What one list holds. What several hold, without a key of its own, is written out in each of them: a value. */
function listedOnce(leads: Leads): ReadonlySet<Definition> {
  const counts = new Map<Definition, number>();
  for (const { definition, many } of [...leads.values()].flat())
    if (many) counts.set(definition, (counts.get(definition) ?? 0) + 1);
  return new Set([...counts].flatMap(([definition, count]) => (count === 1 ? [definition] : [])));
}

function containsItself(start: Definition, leads: Leads): boolean {
  const seen = new Set<Definition>();
  const waiting = [start];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    for (const { definition } of leads.get(next) ?? []) {
      if (definition === start) return true;
      if (seen.has(definition)) continue;
      seen.add(definition);
      waiting.push(definition);
    }
  }
  return false;
}
