import type { RootState } from '../app/store.js';

/** Said of everything that follows from a text, while the text that is written has an error. */
export const AS_OF_VALID = 'as of the last valid text';

/** Whether what follows from the text is older than the text. */
export const isBehindText = ({ derived: { reading } }: RootState): boolean =>
  reading !== null && reading.diagnostics.length > 0;
