export type * from './access.js';
export { admits } from './access.js';
export type * from './types.js';
export type * from './via.js';
export type * from './operation.js';
export type * from './shape.js';
export type * from './reasons.js';
export type * from './review.js';
export { findingKey } from './review.js';
export { decisionText, isDecision, sourceKey, withAnswer, withoutDecision } from './decisions.js';
export type { DecidingAnswer } from './decisions.js';
export { PROTOCOL_ANSWERS } from './protocolAnswers.js';
export type * from './outline.js';
export { CONTRACT_FORMAT, readContract, writeContract } from './format.js';
export { RULES } from './rules/index.js';
export type { RuleId } from './rules/index.js';
export { DIRECTIONS } from './directions.js';
export {
  actsOnRecord,
  EFFECTS,
  leavableAs,
  looksForRecords,
  looksThroughList,
  METHODS,
  SEE_OTHER,
} from './methods.js';
export { answerTypes, HAL, TEXT_TYPE } from './answerTypes.js';
export { isOneRecord, takesEnveloped } from './enveloped.js';
export { linkId, severalIn } from './linkId.js';
export { isDocumented, isOwnTag, isPublished, NO_NOTES, NOTE_KINDS, ownTag } from './documentation.js';
export type {
  ApiDocumentation,
  ExternalDocumentation,
  NoteKind,
  Notes,
  OperationDocumentation,
  ServedAt,
  Tag,
} from './documentation.js';
export {
  casesByStatus,
  documentable,
  headersOfOperation,
  memberSubject,
  noteOn,
  parameterSubject,
  pathSubject,
  responseSubject,
  uniqueSubject,
  usualWords,
} from './documented.js';
export { neverAnswers, type NeverAnswered } from './neverAnswers.js';
export { searchTexts } from './searchTexts.js';
export { acceptedIn, requestHeaders, responseHeaders } from './headers.js';
export type { HeaderUse } from './header.js';
export { envelopeText, inOutRows, memberTypeText, type InOutRow } from './inOut.js';
export { reasonPhrase } from './reasonPhrases.js';
export { modifiedMember } from './cachingHeaders.js';
export { PROBLEMS, type ProblemCode } from './problems.js';
export { operationNaming, type OperationNaming } from './operationNaming.js';
export {
  danglingOperations,
  splitAtOperations,
  withOperationKeys,
  withOperationNames,
  withoutOperationLink,
} from './operationLinks.js';
export {
  firstWays,
  ledTo,
  linkSteps,
  shortestWay,
  stepsOf,
  type FirstWay,
  type Linked,
  type LinkStep,
  type StepsFrom,
} from './linkGraph.js';
export { carriesLinks, isCarried, linksCarriedWith } from './linkPlaces.js';
export { leadsTo, offeredWhen } from './linkWords.js';
export { REGISTERED_RELATIONS } from './linkRelations.js';
export type { RecordEnvelope } from './recordEnvelope.js';
export {
  indexContract,
  isAddressed,
  isHome,
  isReadable,
  listFormAt,
  shapeIn,
  successStatus,
  wholePath,
} from './lookup.js';
export type { ContractIndex } from './lookup.js';
export { figuresOf, fingerprintOf, openAssumptions } from './figures.js';
export type { ContractFigures, FingerprintColumn } from './figures.js';
export { equalTo, filterNames, filterTerm, operatorInValue, parameterKey, sentTerm } from './filterTerm.js';
export type { FilterParameter } from './filterTerm.js';
export type { StructureNames } from './naming.js';
