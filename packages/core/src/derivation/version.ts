/**
 * Raised whenever a design can have other figures than it had: what is kept of a derivation is worked out anew then.
 */
export const DERIVATION_VERSION = 1;
