export { Dataset } from './dataset.js';
export { Draft } from './draft.js';
export type { RowChange, Counters, LeftBeside, RecordView } from './dataset.js';
export { pointerTo, sourceId } from './validateBody.js';
export { normalKey } from './locate.js';
export { dataLossIn, withDefaults } from './dataLoss.js';
export type { DataLoss } from './dataLoss.js';
export { canShareRecords, firstViolation, withDefaultsOf } from './recordCompatibility.js';
export { withDeprecation, type Deprecation } from './deprecation.js';
export { withCors } from './cors.js';
export { exampleRequest, sentBack } from './example.js';
export { recordsBefore } from './recordsBefore.js';
export { keptExample, namedMembers, type KeptExampleResult } from './keptExample.js';
export { exampleFindings, runExample, type RanExample } from './runExample.js';
export { derivedExchange, EXAMPLE_NOW, EXAMPLE_SEED, exampleRecords } from './derivedExample.js';
export { publicationSource } from './publicationSource.js';
export { followWay, type WayRequest } from './followWay.js';
export { describeChange, keepChanges, versionOf } from './image.js';
export type { KeptChange, RecordChange, RecordImage } from './image.js';
export { findViolations, violationsIn, typeProblem } from './invariants.js';
export type { Cause, Violation } from './invariants.js';
export { handle } from './handle.js';
export { harEntry, harFrame, type ArchivedExchange } from './har.js';
export { MASK, maskedAnswer, maskedBody, maskedHeaders, withCredential } from './masking.js';
export { AccessTokens } from './accessTokens.js';
export type { AccessToken, TokenChange, TokenView } from './accessTokens.js';
export type { RecordedBody } from './masking.js';
export { isWrite } from './method.js';
export type { Handled } from './handle.js';
export type {
  EngineRequest,
  EngineResponse,
  Header,
  Problem,
  ProblemDetail,
  RequestBody,
  StepName,
  TraceStep,
} from './message.js';
export { problem, renderProblem } from './problem.js';
export { operationRequest, type OperationSubject } from './operationRequest.js';
export { requestContextAt, type RequestContext } from './service.js';
export type { ProblemPages } from './problem.js';
export { canonicalPath, pathTo, pathWith } from './paths.js';
export { descriptionPath, memberValue, representMembers, representRecord } from './represent.js';
export { cascadeOf } from './cascade.js';
export { joinedBy, planRemoval, removalTree, type JoinedBy, type RemovalNode } from './removal.js';
export { fieldValue } from './list/field.js';
export { fixedFilter, passes, type Filter } from './list/filter.js';
export { indexed } from './list/indexScan.js';
export { isFound, type Search } from './list/search.js';
export type { SortBy } from './list/sort.js';
export { transitionsNow } from './lifeCycle.js';
export { JSON_PATCH } from './patch.js';
export { pointedAt } from './dataset.js';
export type { RemovalPlan } from './removal.js';
export { routerOf } from './router.js';
export type { MatchedRoute, Router } from './router.js';
export type { Service, Runtime } from './service.js';
export { MAX_TARGET_BYTES, readTarget } from './target.js';
export { credentialHeader, credentialsOf, headersOf, presentedBy } from './access.js';
export type { Credential } from './access.js';
export { KEEP_RESPONSES_MS, IdempotentResponses } from './idempotency.js';
export type { IdempotentResponse } from './idempotency.js';
export { applyPatch, pointerTokens, readPatch } from './jsonPatch.js';
export { inverseOf, renumbered } from './undo.js';
export { contractDigest, DIGEST_LENGTH, digestOf } from './digest.js';
export { nearMisses, type NearMiss } from './nearMisses.js';
export { narrowingOf, type NarrowingStep } from './narrowing.js';
export { drawOutcome, simulatedFailure } from './faults.js';
export { printFaults, readFaults } from './faultText.js';
export type { FaultTextProblem, FaultsRead } from './faultText.js';
export type { Failure, FaultOutcome, Latency, FaultRule } from './faults.js';
export { operationAt } from './operationAt.js';
export { computedOf, withStored } from './computed.js';
export {
  addressed,
  canShareOrigin,
  entriesOf,
  varyingBy,
  type Addressing,
  type Sibling,
} from './siblings.js';
