import type { Reasons } from '../contract/index.js';
import type { Broken, Change } from './types.js';

/** What a change is about. */
export type About = Pick<Change, 'where' | 'resource'> & { readonly reasons: Reasons };

export const breaking = (breaks: Broken, { where, resource, reasons }: About, message: string): Change => ({
  weight: 'breaking',
  breaks,
  message,
  where,
  resource,
  reasons,
});

export const compatible = ({ where, resource, reasons }: About, message: string): Change => ({
  weight: 'compatible',
  breaks: null,
  message,
  where,
  resource,
  reasons,
});

export const cosmetic = (about: About, message: string): Change => ({
  ...compatible(about, message),
  weight: 'cosmetic',
});
