import { CUSTOM_OPERATIONS_PART } from './customOperations.js';
import { DOCUMENTATION_PART } from './documentation.js';
import { EXAMPLES_PART } from './examples.js';
import { EXPOSURES_PART } from './exposures.js';
import { LINKS_PART } from './links.js';
import type { ArrangementPart } from './part.js';
import { OWN_LINKS_PART } from './ownLinks.js';
import { PLACEMENTS_PART } from './placements.js';
import { OPERATIONS_PART, RESOURCES_PART, SETTINGS_PART } from './settings.js';
import { WORDS_PART } from './words.js';

/** Everything that can be decided about an arrangement besides its name, in the order it is written. */
export const PARTS = {
  settings: SETTINGS_PART,
  /** By the id of a resource of the contract. */
  resources: RESOURCES_PART,
  /** By `operationKey`. */
  operations: OPERATIONS_PART,
  placements: PLACEMENTS_PART,
  /** By the id of what they name: a statement, or `/back` after it for its way back. */
  words: WORDS_PART,
  exposures: EXPOSURES_PART,
  links: LINKS_PART,
  ownLinks: OWN_LINKS_PART,
  customOperations: CUSTOM_OPERATIONS_PART,
  documentation: DOCUMENTATION_PART,
  examples: EXAMPLES_PART,
} as const;

export type PartName = keyof typeof PARTS;

/** What was decided about one arrangement. */
export type ArrangementChoices = { readonly name: string } & {
  readonly [Name in PartName]: (typeof PARTS)[Name]['empty'];
};

export const PART_NAMES = Object.keys(PARTS) as readonly PartName[];

/** The same registry where only one part is looked at, whichever. */
export const partNamed = (name: PartName): ArrangementPart<unknown, unknown> =>
  PARTS[name] as ArrangementPart<unknown, unknown>;

/** What can be decided, or taken back, about a part. */
export type PartEdit<Name extends PartName> = Parameters<(typeof PARTS)[Name]['edit']>[1];
