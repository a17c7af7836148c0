export { Dataset, Draft } from './dataset.js';
export type { Change, Counters, RecordView } from './dataset.js';
export { pointerTo } from './accept.js';
export { normalKey } from './locate.js';
export { findLosses, withDefaults } from './losses.js';
export type { Loss } from './losses.js';
export { canShareRecords, misfit, withDefaultsOf } from './sharing.js';
export { withLifespan, type Lifespan } from './lifespan.js';
export { withCors } from './cors.js';
export { exampleQuery, exampleRequest } from './example.js';
export { describeChange, keepChanges } from './image.js';
export type { KeptChange, RecordChange, RecordImage } from './image.js';
export { findViolations, violationsIn, typeProblem } from './invariants.js';
export type { Cause, Violation } from './invariants.js';
export { handle } from './handle.js';
export { MASK, maskedBody, maskedHeaders, withCredential } from './masking.js';
export type { RecordedBody } from './masking.js';
export { isWrite } from './method.js';
export type { Handled } from './handle.js';
export type {
  EngineRequest,
  EngineResponse,
  Header,
  Problem,
  ProblemCode,
  ProblemDetail,
  RequestBody,
  StepName,
  TraceStep,
} from './message.js';
export { problem, PROBLEMS, renderProblem } from './problem.js';
export { canonicalPath, descriptionPath, representMembers, representRecord } from './represent.js';
export { planRemoval } from './removal.js';
export type { RemovalPlan } from './removal.js';
export { routerOf } from './router.js';
export type { Route, Router } from './router.js';
export type { Service, Surroundings } from './service.js';
export { MAX_TARGET_BYTES, readTarget } from './target.js';
export { credentialHeader, credentialsOf, presentedBy } from './access.js';
export type { Credential } from './access.js';
export { KEEP_ANSWERS_MS, KeptAnswers } from './idempotency.js';
export type { KeptAnswer } from './idempotency.js';
export { applyPatch, readPatch } from './jsonPatch.js';
export { inverseOf, renumbered } from './undo.js';
export { DIGEST_LENGTH, digestOf } from './digest.js';
export { losingCandidates, type Candidate } from './candidates.js';
export { fateOf, simulatedFailure } from './trouble.js';
export { printTroubles, readTroubles } from './troubleText.js';
export type { TroubleProblem, TroublesRead } from './troubleText.js';
export type { Failure, Fate, Latency, Trouble } from './trouble.js';
export { operationAt } from './operationAt.js';
