import {
  isPlacement,
  PLACEMENTS,
  resolvePlacement,
  type Placement,
  type Placements,
  type SubjectKind,
} from '../placements.js';
import { choiceProblem } from '../reading.js';
import { readEach, withEntry, type ArrangementPart } from './part.js';

const ALL = [...new Set(Object.values(PLACEMENTS).flat())];

/** A place for a statement, or its way back; one that it has anyhow is not kept. */
export type PlacementEdit =
  | { readonly kind: SubjectKind; readonly subject: string; readonly place: Placement }
  /** It goes back to the place it has anyhow. */
  | { readonly subject: string; readonly place: null };

/** Where statements stand. */
export const PLACEMENTS_PART: ArrangementPart<Placements, PlacementEdit> = {
  empty: {},
  read: (given, pointer) =>
    readEach<Placement>(
      given,
      pointer,
      'Expected an object from ids of statements to places.',
      (value, at) =>
        isPlacement(value)
          ? { value, problems: [] }
          : {
              value: 'nested',
              problems: [choiceProblem(at, 'options', `Expected one of ${ALL.join(', ')}.`)],
            },
    ),
  schema: {
    type: 'object',
    description: 'Where statements stand, by their identity; `/back` after it means the way back.',
    additionalProperties: { enum: ALL },
  },
  decided: (placements) =>
    Object.entries(placements).map(([subject, place]) => [`Place of ${subject}`, place]),
  edit: (placements, edit) => {
    const { subject, place } = edit;
    const isUsual = place === null || resolvePlacement({}, edit.kind, subject).place === place;
    return withEntry(placements, subject, isUsual ? null : place);
  },
};
