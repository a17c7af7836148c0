export type {
  Attribute,
  CompareOperator,
  Comparison,
  Condition,
  AttributeType,
  Declaration,
  Entity,
  ImplicitId,
  KeyFlag,
  Literal,
  Model,
  OnRemove,
  Owns,
  PairsWith,
  ExclusiveBounds,
  Range,
  RefersTo,
  Relationship,
  ScalarKind,
  ScalarType,
  Statement,
  Transition,
  UniqueRule,
  ValueDefinition,
} from './types.js';
export { plainAttribute } from './attribute.js';
export {
  IMPLICIT_ID,
  indexModel,
  isImplicitId,
  isSingleton,
  derivedRole,
  keyOf,
  onRemoveOf,
  mustLead,
  ownerRoleOf,
  ownsItself,
  recordAttributes,
  roleOf,
  withImplicitIds,
} from './lookup.js';
export { editAttribute, editedStatement, editModel, editRelationship, otherVerb } from './edits.js';
export type { AttributeEdit, ModelEdit, RelationshipEdit } from './edits.js';
export type { Key, ModelIndex } from './lookup.js';
export { aggregateOf, computedValue } from './computed.js';
export type { RecordReading } from './computed.js';
export { AGGREGATES, partsOf, PRECEDENCE, readsOthers } from './expression.js';
export { isScalarType } from './types.js';
export type { Aggregate, AggregateKind, AlongComparison, Expression, ExpressionOperator } from './types.js';
export { dividedBy, rational, rounded } from './rational.js';
export { readByComputed } from './readByComputed.js';
export { roleOfStep, rolesAmong, rolesOfModel } from './rolesFrom.js';
export type { Along, Roles } from './rolesFrom.js';
export { firstPlural } from './firstPlurals.js';
export { pluralNoun, regularPlural, singularNoun } from './nouns.js';
export {
  camelCase,
  capital,
  editDistance,
  kebabCase,
  nearest,
  pascalCase,
  phrase,
  plural,
  singular,
  snakeCase,
  withArticle,
  withLastWord,
  words,
  uncapital,
} from './names.js';
export { isIdentityName, isSecretName, setByServer } from './tellingNames.js';
export {
  checkScalar,
  compilePattern,
  decimalPlaces,
  describeType,
  DURATION,
  isDate,
  isInstant,
  patternProblem,
  scalarFromText,
  TIME,
} from './scalars.js';
export type { ScalarProblem } from './scalars.js';
export {
  attributeAddress,
  declarationAddress,
  identitiesOf,
  reconcile,
  transitionAddress,
} from './identity.js';
export type { DeclaredRename, Identities } from './identity.js';
export { declareRename, NO_RENAME_CANDIDATES, possibleRenames, trackRenames } from './renameCandidates.js';
export type { ElementKind, RenameCandidate, RenameCandidates, PossibleRename } from './renameCandidates.js';
export {
  changedLines,
  codePointLength,
  compareText,
  hasLoneSurrogate,
  holdsWords,
  listed,
  quotedEnd,
  utf8Length,
} from './text.js';
export { MOST_COLUMNS, newlinesIn } from './separatedValues.js';
export { bareObject, isJsonObject, percentEncoded, sameJson, scalarText } from './records.js';
export { Format, UnknownFormatError } from './format.js';
export type { FormatStep } from './format.js';
export type { Json, JsonObject, Row } from './records.js';
export { namedValue } from './named.js';
export { isConstant } from './constantComparison.js';
export { appendAll, eachInSteps, greatest, mapInSteps, replaceItems, runToEnd } from './steps.js';
export type { Progress, Steps } from './steps.js';
export { literalProblem } from './literals.js';
export { jsonParts, MAX_JSON_DEPTH, readJson } from './json.js';
export type { JsonPart, JsonProblem, JsonReading, JsonResult } from './json.js';
export { constraintValue, pointedEntity, pointingOf, storageOf } from './constraints.js';
export { carriedName, pairCarried, pairFrom, pairStorage, pairTo, pairTypeName, sideRoles } from './pairs.js';
export type { EntityStorage, UniqueConstraint } from './entityStorage.js';
export type { Pointing, Storage } from './constraints.js';
export {
  COMPARE_OPERATORS,
  compareScalars,
  comparesTo,
  instantMillis,
  sameScalar,
  scalarOrder,
  sortValue,
} from './compare.js';
export type { ScalarOrder } from './compare.js';
export { creationOrder } from './creation.js';
export type { CreationOrder } from './creation.js';
export { entryOf, lazy, memoize } from './memoize.js';
export { canBeSingle, withSingles } from './single.js';
