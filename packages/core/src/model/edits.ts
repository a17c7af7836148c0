import type { Attribute, Declaration, Model, Relationship } from './types.js';

/** A change of one relationship, named by its identity. */
export type RelationshipEdit =
  | { readonly kind: 'name-role'; readonly relationship: string; readonly role: string }
  | { readonly kind: 'name-way-back'; readonly relationship: string; readonly back: string }
  | { readonly kind: 'drop-way-back'; readonly relationship: string }
  /** What was owned refers to its owner instead, and the other way round. */
  | { readonly kind: 'turn-around'; readonly relationship: string }
  | { readonly kind: 'make-optional'; readonly relationship: string };

/** A change of one attribute, named by its identity: these properties get these values. */
export interface AttributeEdit {
  readonly kind: 'change-attribute';
  readonly attribute: string;
  readonly change: Partial<
    Pick<
      Attribute,
      | 'type'
      | 'required'
      | 'unique'
      | 'uniqueWithin'
      | 'key'
      | 'generated'
      | 'touched'
      | 'writeOnly'
      | 'defaultValue'
      | 'example'
    >
  >;
}

/** A change of a model as plain data: an answer to a question, or the mend of a finding. */
export type ModelEdit =
  RelationshipEdit | AttributeEdit | { readonly kind: 'remove'; readonly statement: string };

/** The identity of the statement that an edit changes. */
export function editedStatement(edit: ModelEdit): string {
  if (edit.kind === 'remove') return edit.statement;
  return edit.kind === 'change-attribute' ? edit.attribute : edit.relationship;
}

/** The model after an edit; the same model where what it concerns is no longer there. */
export function editModel(model: Model, edit: ModelEdit): Model {
  const declarations = model.declarations.flatMap((declaration): readonly Declaration[] => {
    if (edit.kind === 'remove' && declaration.id === edit.statement) return [];
    if (declaration.kind === 'entity' || declaration.kind === 'value')
      return [{ ...declaration, attributes: editAttributes(declaration.attributes, edit) }];
    return [editRelationship(declaration, edit)];
  });
  return { ...model, declarations };
}

function editAttributes(attributes: readonly Attribute[], edit: ModelEdit): readonly Attribute[] {
  if (edit.kind === 'remove') return attributes.filter(({ id }) => id !== edit.statement);
  return attributes.map((attribute) => editAttribute(attribute, edit));
}

/** The attribute after an edit that may concern it. */
export const editAttribute = (attribute: Attribute, edit: ModelEdit): Attribute =>
  edit.kind === 'change-attribute' && edit.attribute === attribute.id
    ? { ...attribute, ...edit.change }
    : attribute;

/** The relationship after an edit that may concern it. */
export function editRelationship(relationship: Relationship, edit: ModelEdit): Relationship {
  if (edit.kind === 'remove' || edit.kind === 'change-attribute' || edit.relationship !== relationship.id)
    return relationship;
  switch (edit.kind) {
    case 'name-role':
      return { ...relationship, role: edit.role };
    case 'name-way-back':
      return { ...relationship, back: edit.back };
    case 'drop-way-back':
      return { ...relationship, back: null };
    case 'turn-around':
      return otherVerb(relationship);
    case 'make-optional':
      return relationship.kind === 'pairs' ? relationship : { ...relationship, cardinality: 'optional' };
  }
}

/** The same two entities with the other verb: what was owned refers to its owner, and the other way round. */
export function otherVerb(relationship: Relationship): Relationship {
  if (relationship.kind === 'pairs') return relationship;
  const turned = {
    id: relationship.id,
    from: relationship.to,
    to: relationship.from,
    role: relationship.back,
    back: relationship.role,
    onRemove: null,
    description: relationship.description,
    comments: relationship.comments,
  };
  return relationship.kind === 'owns'
    ? { kind: 'refers', cardinality: 'one', fixed: false, unique: false, ...turned }
    : { kind: 'owns', cardinality: 'many', ...turned };
}
