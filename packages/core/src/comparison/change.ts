import type { Reasons } from '../contract/index.js';
import type { AffectedParty, ContractChange } from './types.js';

/** What a change is about. */
export type About = Pick<ContractChange, 'where' | 'resource'> & { readonly reasons: Reasons };

export const breaking = (
  affects: AffectedParty,
  { where, resource, reasons }: About,
  message: string,
): ContractChange => ({
  compatibility: 'breaking',
  affects,
  message,
  where,
  resource,
  reasons,
});

export const compatible = ({ where, resource, reasons }: About, message: string): ContractChange => ({
  compatibility: 'compatible',
  affects: null,
  message,
  where,
  resource,
  reasons,
});

export const cosmetic = (about: About, message: string): ContractChange => ({
  ...compatible(about, message),
  compatibility: 'cosmetic',
});
