import type { Operation } from './operation.js';
import type { Contract, Resource } from './types.js';

export type OutlineResource = Pick<
  Resource,
  | 'id'
  | 'kind'
  | 'canonical'
  | 'path'
  | 'parent'
  | 'entity'
  | 'via'
  | 'transition'
  | 'custom'
  | 'word'
  | 'reasons'
  | 'leftOut'
>;
export type OutlineOperation = Pick<Operation, 'id' | 'verb' | 'method' | 'effect' | 'resource'>;

/** The path tree of a contract with what each path can do, and nothing else: what changes at every keystroke. */
export interface Outline extends Pick<Contract, 'title' | 'root'> {
  readonly resources: readonly OutlineResource[];
  readonly operations: readonly OutlineOperation[];
}
