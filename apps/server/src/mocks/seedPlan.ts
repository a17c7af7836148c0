import { planProblems, type Children, type SeedPlan } from '@isomeros/core/seeding';
import type { Model } from '@isomeros/core/model';
import { pointerTo, type ProblemDetail } from '@isomeros/core/engine';
import { ApiProblem } from '../http/problem.js';
import type { SeedPlanDto } from './mocks.dto.js';

/** Checks what is wanted of seed records against the entities there are. */
export function readSeedPlan(given: SeedPlanDto, model: Model, most: number): SeedPlan {
  const misshapen: ProblemDetail[] = [];
  const report = (path: readonly string[], message: string): void => {
    misshapen.push({ pointer: path.reduce(pointerTo, ''), code: 'type', message });
  };
  const plan = {
    counts: numbersIn(given.counts ?? {}, ['counts'], report),
    children: childrenIn(given.children ?? {}, report),
    shares: sharesIn(given.shares ?? {}, report),
  };
  const errors = [
    ...misshapen,
    ...planProblems(model, plan, most).map(({ path, code, message }) => ({
      pointer: path.reduce(pointerTo, ''),
      code,
      message,
    })),
  ];
  if (errors.length > 0)
    throw new ApiProblem('invalid', 'What is wanted of the records does not fit.', { errors });
  return plan;
}

/** Whether anything is said about seed records. */
const saysSeeds = ({ seed, counts, children, shares }: SeedPlanDto): boolean =>
  [seed, counts, children, shares].some((part) => part !== undefined);

/** Whether initial records are asked for; `null` where neither they nor seed records are. */
export const wantsInitial = (given: SeedPlanDto): boolean | null =>
  given.initialRecords ?? (saysSeeds(given) ? false : null);

/** A mock begins with the one or with the other. */
export function checkOneSource(given: SeedPlanDto): void {
  if (given.initialRecords !== true || !saysSeeds(given)) return;
  const message = 'Expected either initial records, or what is wanted of seed records.';
  throw new ApiProblem('invalid', message, {
    errors: [{ pointer: '/initialRecords', code: 'conflict', message }],
  });
}

type Given = Readonly<Record<string, unknown>>;
type Report = (path: readonly string[], message: string) => void;

const isObject = (value: unknown): value is Given =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function numbersIn(given: Given, path: readonly string[], report: Report): Record<string, number> {
  return Object.fromEntries(
    Object.entries(given).flatMap(([name, value]) => {
      if (typeof value === 'number') return [[name, value] as const];
      report([...path, name], 'Expected a number.');
      return [];
    }),
  );
}

function childrenIn(given: Given, report: Report): Record<string, Children> {
  return Object.fromEntries(
    Object.entries(given).flatMap(([name, value]) => {
      const { least, most, shape = 'even', ...other } = isObject(value) ? value : {};
      const fits = typeof least === 'number' && typeof most === 'number' && Object.keys(other).length === 0;
      if (fits && (shape === 'even' || shape === 'tail')) return [[name, { least, most, shape }] as const];
      report(['children', name], 'Expected an object with least and most, and shape: even or tail.');
      return [];
    }),
  );
}

function sharesIn(given: Given, report: Report): Record<string, Record<string, number>> {
  return Object.fromEntries(
    Object.entries(given).flatMap(([name, value]) => {
      if (isObject(value)) return [[name, numbersIn(value, ['shares', name], report)] as const];
      report(['shares', name], 'Expected an object from options to their shares.');
      return [];
    }),
  );
}
