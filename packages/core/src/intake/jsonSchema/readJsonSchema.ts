import { isJsonObject, readJson, type Declaration } from '../../model/index.js';
import { memberBeside, newEntity, Names, newValue } from '../build.js';
import { Report, type Intake, type IntakeOptions } from '../report.js';
import { finishIntake } from '../finishIntake.js';
import { findEntities, findParts, keyProperty } from './classify.js';
import { Definitions, type Definition } from './definitions.js';
import { schemaAttribute, type SchemaReading } from './members.js';
import { joinEntities } from './relationships.js';
import { SchemaDocument, textIn } from './schemas.js';

/** The deepest nesting of a schema that is read. */
const DEPTH = 100;

/**
 * Reads a JSON Schema (2020-12 or draft-07) as a model: objects with an identity of their own become entities,
 * others values; references and lists become relationships. Total: whatever cannot be read is in the report.
 */
export function readJsonSchema(
  source: string,
  name: string,
  { progress, record = name }: IntakeOptions = {},
): Intake {
  const report = new Report();
  const offsets = new WeakMap<object, number>();
  const read = readJson(source, { depth: DEPTH, rounded: true, offsets });
  progress?.(0.3);
  if (!read.ok) {
    const { message, line, column } = read.problem;
    report.problem = `It is no JSON: ${message} Line ${line}, column ${column}.`;
    return finishIntake(name, [], report);
  }
  if (!isJsonObject(read.value)) {
    report.problem = 'Expected a schema: a JSON object.';
    return finishIntake(name, [], report);
  }
  const document = new SchemaDocument(read.value, source, offsets);
  const definitions = new Definitions(document, record, report);
  const entities = findEntities(definitions);
  if (entities.size === 0) report.problem = 'The schema describes no object with properties.';
  const declarations = declare({ document, definitions, entities, report });
  progress?.(0.9);
  return finishIntake(name, declarations, report);
}

function declare(reading: SchemaReading): readonly Declaration[] {
  const { relationships, taken } = joinEntities(reading);
  const names = new Names();
  for (const { from, to, role, back } of relationships) {
    if (role !== null) names.take(from, role);
    if (back !== null) names.take(to, back);
  }
  const parts = findParts(reading.definitions);
  for (const { name, schema } of parts) {
    reading.report.tally('definitions', null);
    reading.report.leave(
      reading.document.linesOf(schema),
      name,
      'Others are composed of it and have its properties.',
    );
  }
  const all = reading.definitions.all().filter((definition) => !parts.has(definition));
  const blocks = all.map((definition) => block(reading, definition, taken.get(definition), names));
  const isValue = ({ kind }: Declaration): boolean => kind === 'value';
  return [...blocks.filter(isValue), ...blocks.filter((item) => !isValue(item)), ...relationships];
}

function block(
  reading: SchemaReading,
  definition: Definition,
  taken: ReadonlyMap<string, string> | undefined,
  names: Names,
): Declaration {
  const { document, entities, report } = reading;
  const attributes = [...definition.properties].flatMap(([property, schema]) => {
    const relationship = taken?.get(property);
    if (relationship !== undefined) {
      report.tally('members', relationship);
      return [];
    }
    const attribute = schemaAttribute(reading, definition, property, schema);
    if (attribute === null) {
      const isKey = property === keyProperty(definition);
      report.tally('members', isKey ? definition.name : null);
      return [];
    }
    const name = memberBeside((one) => names.has(definition.name, one), attribute.name);
    names.take(definition.name, name);
    const id = name === attribute.name ? attribute.id : `${definition.name}.${name}`;
    report.tally('members', id);
    if (name === attribute.name) return [attribute];
    report.assume(
      document.linesOf(schema),
      `${property} is called ${name}.`,
      `${definition.name} has something called ${attribute.name} already.`,
    );
    report.understand(id, document.linesOf(schema), `${property}, beside ${attribute.name}`);
    return [{ ...attribute, id, name }];
  });
  const description = textIn(definition.schema, 'description');
  const lines = document.linesOf(definition.schema);
  report.tally('definitions', definition.name);
  if (!entities.has(definition)) {
    report.understand(definition.name, lines, 'an object without a key, had by others');
    return newValue(definition.name, attributes, description);
  }
  const key = keyProperty(definition);
  report.understand(
    definition.name,
    lines,
    key === null ? 'an object that stands alone' : `an object with a key, ${key}`,
  );
  return newEntity(definition.name, attributes, { description });
}
