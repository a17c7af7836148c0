import type { Contract } from '../../contract/index.js';

/** A contract with nothing said of it yet. */
export type UndocumentedContract = Omit<Contract, 'description' | 'documentation' | 'findings'>;
