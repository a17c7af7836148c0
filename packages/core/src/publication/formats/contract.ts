import { writeContract } from '../../contract/index.js';
import type { PublicationFormat } from './format.js';

/** The whole contract, as comparisons and later versions read it. */
export const CONTRACT_DOCUMENT: PublicationFormat = {
  title: 'Contract',
  mediaType: 'application/json',
  write: ({ contract }) => writeContract(contract),
  cannotSay: () => [],
};
