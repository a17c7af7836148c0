import type {
  Attribute,
  Declaration,
  Entity,
  Model,
  Relationship,
  UniqueRule,
  ValueDefinition,
} from '@isomeros/core/model';
import {
  parse,
  printAttribute,
  printRelationship,
  printTransition,
  replaceStatement,
  type ParseResult,
  type StatementPlace,
} from '@isomeros/core/notation';

export type SheetBlock = Entity | ValueDefinition;

const quoted = (description: string | null): string =>
  description === null || description === '' ? '' : ` ${JSON.stringify(description)}`;

/** An edit of a text by way of its model: the change is written back as the one statement it concerns. */
export type TextEdit = (text: string, parsed: ParseResult) => string;

/** Applies an edit to a text; the text stays when the statement is no longer there. */
export const applyEdit = (
  text: string,
  identities: Readonly<Record<string, string>>,
  edit: TextEdit,
): string => edit(text, parse(text, identities));

const at = (parsed: ParseResult, id: string): StatementPlace | undefined => parsed.places.get(id);

/** Writes an attribute back: its own line, and its transitions below it. */
export const writeAttribute =
  (attribute: Attribute): TextEdit =>
  (text, parsed) => {
    const place = at(parsed, attribute.id);
    if (place === undefined) return text;
    const lines = replaceStatement(text, place, printAttribute(attribute)).split('\n');
    const transitions = (attribute.lifeCycle ?? []).map((transition) => `    ${printTransition(transition)}`);
    const known = linesBelow(lines, place);
    return [...lines.slice(0, place.line), ...transitions, ...lines.slice(place.line + known)].join('\n');
  };

/** How many lines directly below an attribute are its transitions. */
function linesBelow(lines: readonly string[], { line, endLine }: StatementPlace): number {
  let count = 0;
  while (line + count < Math.max(endLine, line) && /^ {3,}\S/.test(lines[line + count] ?? '')) count++;
  return count;
}

export const writeRelationship =
  (relationship: Relationship): TextEdit =>
  (text, parsed) => {
    const place = at(parsed, relationship.id);
    return place === undefined
      ? text
      : replaceStatement(text, place, printRelationship(relationship) + quoted(relationship.description));
  };

export const writeBlock =
  (block: SheetBlock): TextEdit =>
  (text, parsed) => {
    const place = at(parsed, block.id);
    return place === undefined
      ? text
      : replaceStatement(text, place, `${block.kind} ${block.name}${quoted(block.description)}`);
  };

export const printUnique = (names: readonly string[]): string => `unique (${names.join(', ')})`;

export const writeUnique =
  (rule: UniqueRule): TextEdit =>
  (text, parsed) => {
    const place = at(parsed, rule.id);
    return place === undefined
      ? text
      : replaceStatement(text, place, printUnique(rule.names) + quoted(rule.description));
  };

export const isBlock = (declaration: Declaration): declaration is SheetBlock =>
  declaration.kind === 'entity' || declaration.kind === 'value';

/** The declaration an identity belongs to: of an attribute, its block. */
export function declarationOf(model: Model, id: string): Declaration | undefined {
  return model.declarations.find(
    (declaration) =>
      declaration.id === id ||
      (isBlock(declaration) &&
        declaration.attributes.some(
          (attribute) =>
            attribute.id === id || attribute.lifeCycle?.some((transition) => transition.id === id) === true,
        )),
  );
}

/** The wanted name, or, where it is taken, the first one with a number behind it that is not. */
export function unusedName(wanted: string, taken: ReadonlySet<string>): string {
  let name = wanted;
  for (let number = 2; taken.has(name); number++) name = `${wanted}${number}`;
  return name;
}
