import type { Json } from '../model/index.js';

/** What is to be done about a step. */
export type Decision =
  | { readonly do: 'fill'; readonly value: Json }
  /** `otherwise`: what is done about those that cannot be converted. */
  | { readonly do: 'convert'; readonly otherwise?: Exclude<Decision, { do: 'convert' }> }
  | { readonly do: 'drop' };
