import type { Api } from './api.js';
import type { RouteShape } from './route.js';

export type { Api } from './api.js';
export type * from './arrangements.js';
export type * from './exchanges.js';
export type * from './intake.js';
export type * from './mocks.js';
export type * from './publications.js';
export type * from './records.js';
export type * from './releases.js';
export type * from './route.js';
export type * from './runningIntakes.js';
export type * from './designs.js';
export { SOURCE_FORMATS } from './designs.js';
export { PROBLEM_KINDS } from './problems.js';
export type { ProblemBody, ProblemError, ProblemKind } from './problems.js';
export { methodOf, pathOf, pathTemplateOf } from './path.js';
export type { PathParameters, RouteKey } from './path.js';

/** What an operation answers as JSON. */
export type AnswerOf<Key extends keyof Api> = Api[Key] extends { readonly answer: infer Answer }
  ? Answer
  : undefined;

/** The JSON body an operation takes. */
export type BodyOf<Key extends keyof Api> = Api[Key] extends { readonly body: infer Body } ? Body : undefined;

/** The query parameters an operation takes. */
export type QueryOf<Key extends keyof Api> = Api[Key] extends { readonly query: infer Query }
  ? Query
  : undefined;

type Fitting<Routes extends Readonly<Record<keyof Routes, RouteShape>>> = Routes;

/** The operations, checked to say only what the description knows. */
export type Routes = Fitting<Api>;
