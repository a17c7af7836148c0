import {
  editAttribute,
  editedStatement,
  editRelationship,
  type Declaration,
  type Model,
  type ModelEdit,
} from '../model/index.js';
import { removeStatement, replaceStatement } from './edit.js';
import type { ParseResult } from './parse.js';
import { printAttribute, printRelationship } from './print.js';

/**
 * Writes an edit back as the one statement it concerns; everything else stays byte for byte. The text stays
 * when the statement is no longer there.
 */
export function editText(
  text: string,
  { model, places }: Pick<ParseResult, 'model' | 'places'>,
  edit: ModelEdit,
): string {
  const place = places.get(editedStatement(edit));
  if (place === undefined) return text;
  if (edit.kind === 'remove') return removeStatement(text, place);
  const statement = editedLine(model, edit);
  return statement === null ? text : replaceStatement(text, place, statement);
}

function editedLine(model: Model, edit: ModelEdit): string | null {
  const id = editedStatement(edit);
  for (const declaration of model.declarations) {
    if (isBlock(declaration)) {
      const attribute = declaration.attributes.find((candidate) => candidate.id === id);
      if (attribute !== undefined) return printAttribute(editAttribute(attribute, edit));
    } else if (declaration.id === id) {
      const next = editRelationship(declaration, edit);
      const description = next.description === null ? '' : ` ${JSON.stringify(next.description)}`;
      return printRelationship(next) + description;
    }
  }
  return null;
}

const isBlock = (
  declaration: Declaration,
): declaration is Extract<Declaration, { kind: 'entity' | 'value' }> =>
  declaration.kind === 'entity' || declaration.kind === 'value';
