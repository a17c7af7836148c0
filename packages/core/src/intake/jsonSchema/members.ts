import {
  isSecretName,
  setByServer,
  literalProblem,
  isJsonObject,
  withArticle,
  type Attribute,
  type AttributeType,
  type Json,
} from '../../model/index.js';
import { newAttribute, asMemberName } from '../build.js';
import { assumed, instead, type Report } from '../report.js';
import { isNullable, UNRESOLVED, withoutNull, type Definition, type Definitions } from './definitions.js';
import { keyProperty } from './classify.js';
import { isScaleStep, patternOf, scalarTypeOf, wholeOptions } from './scalarTypes.js';
import {
  asSchema,
  numberIn,
  propertiesOf,
  textIn,
  typesOf,
  type Schema,
  type SchemaDocument,
} from './schemas.js';

/** What reads the properties of one document. */
export interface SchemaReading {
  readonly document: SchemaDocument;
  readonly definitions: Definitions;
  readonly entities: ReadonlySet<Definition>;
  readonly report: Report;
}

/** The attribute of an entity or a value that a property is; `null` where it is none. */
export function schemaAttribute(
  reading: SchemaReading,
  definition: Definition,
  property: string,
  schema: Schema,
): Attribute | null {
  const { document, report, entities } = reading;
  const lines = document.linesOf(schema);
  const resolved = document.resolve(withoutNull(schema));
  if (resolved === null) {
    report.leave(lines, `${property}: ${textIn(withoutNull(schema), '$ref') ?? ''}`, UNRESOLVED);
    return null;
  }
  const type = typeOf(reading, schema, resolved);
  noteIgnored(reading, property, resolved);
  const isEntity = entities.has(definition);
  const named = newAttribute(definition.name, asMemberName(property, 'member'), type, {
    description: textIn(schema, 'description') ?? textIn(schema, 'title'),
    required: definition.required.has(property) && !isNullable(schema),
    defaultValue: literalIn(type, schema['default'] ?? resolved['default']),
    example: literalIn(type, firstExample(schema) ?? firstExample(resolved)),
  });
  const attribute = isEntity ? withFlags(reading, definition, property, resolved, named) : named;
  if (attribute !== null) report.understand(attribute.id, lines, reasonFor(resolved, named.required));
  return attribute;
}

function typeOf(reading: SchemaReading, schema: Schema, resolved: Schema): AttributeType {
  const lead = reading.definitions.referenceIn(schema);
  if (lead !== null && !lead.many) return { kind: 'value', name: lead.definition.name };
  if (typesOf(resolved).includes('array')) {
    const items = asSchema(resolved['items']);
    const inner = reading.document.resolve(withoutNull(items));
    const of = inner === null ? { kind: 'json' as const } : typeOf(reading, items, inner);
    const plain: AttributeType = of.kind === 'text' ? { ...of, pattern: null } : of;
    return {
      kind: 'list',
      of: plain,
      min: numberIn(resolved, 'minItems'),
      max: numberIn(resolved, 'maxItems'),
    };
  }
  return scalarTypeOf(resolved) ?? { kind: 'json' };
}

/** Keywords that say something a model has no sentence for. */
const IGNORED = [
  'not',
  'if',
  'patternProperties',
  'dependentRequired',
  'dependentSchemas',
  'dependencies',
  'propertyNames',
  'contains',
  'prefixItems',
  'uniqueItems',
  'minProperties',
  'maxProperties',
];

/** Keywords that say what an open value may be. */
const OPEN = ['oneOf', 'anyOf', 'additionalProperties'];

function noteIgnored({ document, report }: SchemaReading, property: string, schema: Schema): void {
  const isOpen = scalarTypeOf(schema) === null && propertiesOf(schema).length === 0;
  const ignored = [
    ...IGNORED.filter((keyword) => keyword in schema),
    ...(isOpen
      ? OPEN.filter((keyword) => isJsonObject(schema[keyword]) || Array.isArray(schema[keyword]))
      : []),
  ];
  if (ignored.length > 0)
    report.leave(document.linesOf(schema), `${property}: ${ignored.join(', ')}`, 'A model has no such rule.');
  const numbers = wholeOptions(schema);
  const isGapless = numbers?.every((number, at) => number === (numbers[0] ?? 0) + at) ?? true;
  if (!isGapless)
    report.leave(
      document.linesOf(schema),
      `${property}: enum ${numbers?.join(', ') ?? ''}`,
      'A choice is of texts; of numbers the range is kept.',
    );
  const step = numberIn(schema, 'multipleOf');
  if (step !== null && step > 0 && !isScaleStep(step))
    report.leave(
      document.linesOf(schema),
      `${property}: multipleOf ${step}`,
      'A model has steps of a scale alone: 0.1, 0.01 and so on.',
    );
  if (textIn(schema, 'pattern') !== null && patternOf(schema) === null)
    report.leave(
      document.linesOf(schema),
      `${property}: pattern ${textIn(schema, 'pattern')}`,
      'The pattern uses what cannot be matched in linear time.',
    );
}

/** What an attribute of an entity is besides its type; `null` where every entity has it anyway. */
function withFlags(
  reading: SchemaReading,
  definition: Definition,
  property: string,
  schema: Schema,
  attribute: Attribute,
): Attribute | null {
  const readOnly = schema['readOnly'] === true;
  if (property === keyProperty(definition)) return keyed(reading, definition, schema, attribute);
  if (attribute.name === 'id') return { ...attribute, id: `${definition.name}.ownId`, name: 'ownId' };
  const writeOnly = schema['writeOnly'] === true;
  const isMade = readOnly && attribute.type.kind === 'instant';
  const set = isMade ? setByServer(attribute.name) : null;
  if (set === 'at every change') return { ...attribute, touched: true, required: false };
  if (set === 'once') return { ...attribute, generated: true };
  if (readOnly) return { ...attribute, readOnly: true, required: false };
  return secret(reading, schema, { ...attribute, writeOnly });
}

function secret({ document, report }: SchemaReading, schema: Schema, attribute: Attribute): Attribute {
  if (attribute.writeOnly || !isSecretName(attribute.name)) return attribute;
  report.askSecret(document.linesOf(schema), attribute.name, attribute.id);
  return { ...attribute, writeOnly: true };
}

function keyed(
  { document, report }: SchemaReading,
  definition: Definition,
  schema: Schema,
  attribute: Attribute,
): Attribute | null {
  const { kind } = attribute.type;
  // Every entity without a key has a counted id, so it need not be said.
  if (attribute.name === 'id' && kind === 'integer') return null;
  const generated = kind === 'integer' || kind === 'uuid';
  const key: Attribute = {
    ...attribute,
    key: { generated, within: null },
    generated,
    required: false,
    defaultValue: null,
  };
  if (generated && schema['readOnly'] !== true) {
    const change = { generated: false, key: { generated: false, within: null } };
    report.ask(
      document.linesOf(schema),
      `Who makes the ${attribute.name} of ${withArticle(definition.name)}?`,
      'The schema does not say that it is read-only.',
      [
        assumed('the server'),
        instead('the client', { kind: 'change-attribute', attribute: attribute.id, change }),
      ],
      attribute.id,
    );
  }
  return key;
}

const firstExample = (schema: Schema): Json | undefined => {
  const { examples } = schema;
  return Array.isArray(examples) ? (examples as readonly Json[])[0] : undefined;
};

/** A default or an example that fits the type. */
const literalIn = (type: AttributeType, value: Json | undefined): Json =>
  value === undefined || literalProblem(type, value) !== null ? null : value;

function reasonFor(schema: Schema, required: boolean): string {
  const format = textIn(schema, 'format');
  const parts = [typesOf(schema).join(' or ') || ('enum' in schema ? 'an enumeration' : 'no type')];
  if (format !== null) parts.push(format);
  if (required) parts.push('required');
  if (schema['readOnly'] === true) parts.push('read-only');
  if (schema['writeOnly'] === true) parts.push('write-only');
  return parts.join(', ');
}
