import {
  appendAll,
  isJsonObject,
  type Attribute,
  type AttributeType,
  type Comparison,
  type Condition,
  type Declaration,
  type Json,
  type Model,
  type ExclusiveBounds,
  type Range,
  type Relationship,
  type Transition,
  type UniqueRule,
} from '../model/index.js';
import { writeOption, writeOperand } from './tokens.js';
import { printExpression } from './printExpression.js';

/** The canonical text of a model: what the formatter prints. `parse(print(model))` is the model. */
export function print(model: Model): string {
  const lines: string[] = [];
  if (model.name !== '') {
    appendAll(lines, comments(model.comments, ''));
    lines.push(`design ${JSON.stringify(model.name)}${quoted(model.description)}`);
  }
  let previous: Declaration | null = null;
  for (const declaration of model.declarations) {
    const together = previous !== null && isRelationship(previous) && isRelationship(declaration);
    if (lines.length > 0 && !together) lines.push('');
    appendAll(lines, printDeclaration(declaration));
    previous = declaration;
  }
  if (model.trailingComments.length > 0) {
    if (lines.length > 0) lines.push('');
    appendAll(lines, comments(model.trailingComments, ''));
  }
  return lines.length === 0 ? '' : `${lines.join('\n')}\n`;
}

const isRelationship = (declaration: Declaration): declaration is Relationship =>
  declaration.kind !== 'entity' && declaration.kind !== 'value';

const comments = (texts: readonly string[], indent: string): string[] =>
  texts.map((text) => (text === '' ? `${indent}#` : `${indent}# ${text}`));

const quoted = (text: string | null): string => (text === null ? '' : ` ${JSON.stringify(text)}`);

function printDeclaration(declaration: Declaration): string[] {
  const above = comments(declaration.comments, '');
  const end = quoted(declaration.description);
  switch (declaration.kind) {
    case 'entity':
      return [
        ...above,
        `entity ${declaration.name}${end}`,
        ...declaration.attributes.flatMap(attributeLines),
        ...declaration.uniques.flatMap(uniqueLines),
      ];
    case 'value':
      return [...above, `value ${declaration.name}${end}`, ...declaration.attributes.flatMap(attributeLines)];
    case 'owns':
    case 'refers':
    case 'pairs':
      return [...above, `${printRelationship(declaration)}${end}`];
  }
}

const attributeLines = (attribute: Attribute): string[] => [
  ...comments(attribute.comments, '  '),
  `  ${printAttribute(attribute)}`,
  ...(attribute.lifeCycle ?? []).flatMap((transition) => [
    ...comments(transition.comments, '    '),
    `    ${printTransition(transition)}`,
  ]),
];

const uniqueLines = (rule: UniqueRule): string[] => [
  ...comments(rule.comments, '  '),
  `  unique (${rule.names.join(', ')})${quoted(rule.description)}`,
];

/** One attribute as its line in the notation, without indentation. */
export function printAttribute(attribute: Attribute): string {
  const { key } = attribute;
  const parts = [`${attribute.name}: ${printType(attribute.type)}`];
  if (key !== null) parts.push(key.within === null ? 'key' : `key within ${key.within}`);
  if (attribute.generated) parts.push('generated');
  if (attribute.required) parts.push('required');
  if (attribute.unique) parts.push('unique');
  if (attribute.uniqueWithin !== null) parts.push(`unique within ${attribute.uniqueWithin}`);
  if (attribute.touched) parts.push('touched');
  if (attribute.fixed) parts.push('fixed');
  if (attribute.readOnly) parts.push('read-only');
  if (attribute.writeOnly) parts.push('write-only');
  if (attribute.defaultValue !== null)
    parts.push(`default ${literal(attribute.type, attribute.defaultValue)}`);
  if (attribute.type.kind === 'text' && attribute.type.pattern !== null) {
    parts.push(`pattern ${JSON.stringify(attribute.type.pattern)}`);
  }
  if (attribute.computed !== null) parts.push(`computed ${printExpression(attribute.computed)}`);
  if (attribute.example !== null) parts.push(`example ${literal(attribute.type, attribute.example)}`);
  return parts.join(', ') + quoted(attribute.description);
}

export function printType(type: AttributeType): string {
  switch (type.kind) {
    case 'text':
    case 'integer':
      return type.kind + parenthesised(range(type));
    case 'decimal':
      return type.kind + parenthesised(decimalRange(type), type.scale === null ? '' : `scale ${type.scale}`);
    case 'choice':
      return `choice(${type.options.map(writeOption).join(', ')})`;
    case 'list':
      return `list${parenthesised(range(type))} of ${printType(type.of)}`;
    case 'value':
      return type.name;
    case 'boolean':
    case 'date':
    case 'time':
    case 'instant':
    case 'duration':
    case 'uuid':
    case 'email':
    case 'uri':
    case 'json':
      return type.kind;
  }
}

function parenthesised(...parts: readonly string[]): string {
  const given = parts.filter((part) => part !== '');
  return given.length === 0 ? '' : `(${given.join(', ')})`;
}

const range = ({ min, max }: Range): string =>
  min === null && max === null ? '' : `${min ?? ''}..${max ?? ''}`;

/** The range of a decimal, whose bounds may be out themselves: `>0..`, `..<1`. */
function decimalRange({ min, max, exclusiveMin, exclusiveMax }: Range & ExclusiveBounds): string {
  if (min === null && max === null) return '';
  const above = exclusiveMin === true && min !== null ? '>' : '';
  const below = exclusiveMax === true && max !== null ? '<' : '';
  return `${above}${min ?? ''}..${below}${max ?? ''}`;
}

/** Options of a choice stand as they do in its type; every other text is quoted. */
const literal = (type: AttributeType, value: Json): string =>
  typeof value === 'string' && type.kind === 'choice' ? writeOption(value) : json(value);

/** JSON in one line, with a space behind each comma and colon. */
const json = (value: Json): string => {
  if (Array.isArray(value)) return `[${(value as readonly Json[]).map(json).join(', ')}]`;
  if (!isJsonObject(value)) return JSON.stringify(value);
  return `{${Object.entries(value)
    .map(([name, member]) => `${JSON.stringify(name)}: ${json(member)}`)
    .join(', ')}}`;
};

/** One transition as its line in the notation, without indentation. */
export function printTransition({ name, from, to, when, description }: Transition): string {
  const condition = when === null ? '' : ` when ${printCondition(when)}`;
  return `${name}: ${from.map(writeOption).join(', ')} -> ${writeOption(to)}${condition}${quoted(description)}`;
}

export const printCondition = (condition: Condition): string =>
  condition.map((all) => all.map(printComparison).join(' and ')).join(' or ');

function printComparison({ attribute, operator, operand }: Comparison): string {
  if (operand.kind === 'now') return `${attribute} ${operator} now`;
  return `${attribute} ${operator} ${writeOperand(operand.value)}`;
}

export const VERBS: Readonly<Record<Relationship['kind'], string>> = {
  owns: 'owns',
  refers: 'refers to',
  pairs: 'pairs with',
};

/** One relationship as its sentence in the notation, without description. */
export function printRelationship(relationship: Relationship): string {
  let sentence = `each ${relationship.from} ${VERBS[relationship.kind]} ${relationship.cardinality} ${relationship.to}`;
  if (relationship.role !== null) sentence += ` as ${relationship.role}`;
  const parts = [sentence];
  if (relationship.back !== null) parts.push(`back as ${relationship.back}`);
  if (relationship.onRemove !== null) parts.push(`on remove ${relationship.onRemove}`);
  if (relationship.kind === 'refers' && relationship.fixed) parts.push('fixed');
  if (relationship.kind === 'refers' && relationship.unique) parts.push('unique');
  if (relationship.kind === 'pairs' && relationship.carrying !== null)
    parts.push(`carrying ${relationship.carrying}`);
  return parts.join(', ');
}
