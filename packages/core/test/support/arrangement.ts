import { arrangementOf, NO_CHOICES } from '@isomeros/core/arrangement';

/** The arrangement a new design has: nobody chose anything. */
export const MAIN = arrangementOf('main', NO_CHOICES);
