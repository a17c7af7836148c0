import { isPlacement, PLACEMENTS, type Placement, type Placements } from '../placements.js';
import { choiceProblem } from '../reading.js';
import { readEach, type ArrangementPart } from './part.js';

const ALL = [...new Set(Object.values(PLACEMENTS).flat())];

/** Where statements stand. */
export const PLACEMENTS_PART: ArrangementPart<Placements> = {
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
};
