import { memoize } from '../model/index.js';
import type { Contract, MediaType, Operation } from '../contract/index.js';
import type { StepName, TraceStep } from './message.js';

export const passed = (step: StepName, text: string): TraceStep => ({ step, outcome: 'passed', text });
export const stopped = (step: StepName, text: string): TraceStep => ({ step, outcome: 'stopped', text });

/** Most steps say the same for many requests; these are made once, since thousands of traces are kept. */
const matchOf = memoize((operation: Operation, root: string, path: string) =>
  passed('match', `${operation.id}, ${operation.method} ${root}${path}`),
);

/** The path of a resource leads to an operation of a contract. */
export const matched = ({ root }: Contract, path: string, operation: Operation): TraceStep =>
  matchOf(operation, root, path);

export const AGREED: Readonly<Record<MediaType, TraceStep>> = {
  'application/json': passed('negotiate', 'application/json'),
  'application/hal+json': passed('negotiate', 'application/hal+json'),
};

export const PAGE_OF_LIST = passed('represent', 'a page of the list');
export const RECORD_WITH_LINKS = passed('represent', 'the record with its links');

const OK = passed('answer', '200');

/** Whatever is not refused is told by its status alone. */
export const answered = (status: number): TraceStep =>
  status === 200 ? OK : passed('answer', String(status));
