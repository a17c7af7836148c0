import type { MockRow } from '../database/tables.js';

/** The names of the arrangements that a mock serves. */
export const servedNames = ({ arrangements }: Pick<MockRow, 'arrangements'>): readonly string[] =>
  JSON.parse(arrangements) as string[];

/** The same as they are stored, one of them under another name. */
export const withRenamed = (row: Pick<MockRow, 'arrangements'>, from: string, to: string): string =>
  JSON.stringify(servedNames(row).map((name) => (name === from ? to : name)));

/** The port of each arrangement, in their order; 0 before it has one. */
export const servedPorts = ({ ports }: Pick<MockRow, 'ports'>): readonly number[] =>
  JSON.parse(ports) as number[];
