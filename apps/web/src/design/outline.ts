import type { Contract, Operation, Resource } from '@isomeros/core/contract';

export type OutlineResource = Pick<Resource, 'id' | 'kind' | 'path' | 'parent' | 'entity' | 'reasons'>;
export type OutlineOperation = Pick<Operation, 'id' | 'verb' | 'method' | 'effect' | 'resource'>;

/**
 * What of a contract changes on screen at every keystroke: the path tree, and what is to be asked. The whole
 * contract stays in the worker until a page needs it.
 */
export interface Outline extends Pick<Contract, 'title' | 'root' | 'findings' | 'assumptions'> {
  readonly resources: readonly OutlineResource[];
  readonly operations: readonly OutlineOperation[];
}

export const outlineOf = ({
  title,
  root,
  findings,
  assumptions,
  resources,
  operations,
}: Contract): Outline => ({
  title,
  root,
  findings,
  assumptions,
  resources: resources.map(({ id, kind, path, parent, entity, reasons }) => ({
    id,
    kind,
    path,
    parent,
    entity,
    reasons,
  })),
  operations: operations.map(({ id, verb, method, effect, resource }) => ({
    id,
    verb,
    method,
    effect,
    resource,
  })),
});
