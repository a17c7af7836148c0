import type { MockRow } from '../database/tables.js';

/** What stands behind one port of a mock: an arrangement, which moves with the design, or a release, which never does. */
export type Served =
  | { readonly kind: 'arrangement'; readonly name: string }
  | { readonly kind: 'release'; readonly label: string };

/** How it is called where both may stand. */
export const servedText = (served: Served): string =>
  served.kind === 'arrangement' ? served.name : `release ${served.label}`;

/** The names of the arrangements that a mock serves. */
export const servedNames = ({ arrangements }: Pick<MockRow, 'arrangements'>): readonly string[] =>
  JSON.parse(arrangements) as string[];

/** The labels of the releases that a mock serves. */
export const servedLabels = ({ releases }: Pick<MockRow, 'releases'>): readonly string[] =>
  JSON.parse(releases) as string[];

/** Everything a mock serves, in the order of its ports: arrangements first. */
export const servedBy = (row: Pick<MockRow, 'arrangements' | 'releases'>): readonly Served[] => [
  ...servedNames(row).map((name): Served => ({ kind: 'arrangement', name })),
  ...servedLabels(row).map((label): Served => ({ kind: 'release', label })),
];

/** The arrangements as they are stored, one of them under another name. */
export const withRenamed = (row: Pick<MockRow, 'arrangements'>, from: string, to: string): string =>
  JSON.stringify(servedNames(row).map((name) => (name === from ? to : name)));

/** The port of everything that is served, in its order; 0 before it has one. */
export const servedPorts = ({ ports }: Pick<MockRow, 'ports'>): readonly number[] =>
  JSON.parse(ports) as number[];
