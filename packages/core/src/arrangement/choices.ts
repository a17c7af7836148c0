import { canBeSingle, indexModel, withImplicitIds, withSingles, type Model } from '../model/index.js';
import { PART_NAMES, partNamed, type ArrangementChoices } from './parts/index.js';
import { SETTINGS } from './settings/table.js';
import type { SettingValues } from './settings/values.js';

/** What was decided about a design besides its text. */
export interface Choices {
  /** For the whole design. */
  readonly settings: SettingValues;
  /** At least one, no two of a name, in the order they were made. */
  readonly arrangements: readonly ArrangementChoices[];
  /** Ids of assumptions that somebody agreed to. */
  readonly answered: readonly string[];
}

/** One way of laying a model out as resources: what was chosen for it, and before that for the whole design. */
export interface Arrangement extends Omit<ArrangementChoices, 'settings'> {
  readonly design: SettingValues;
  readonly own: SettingValues;
}

/** The name of the arrangement that a new design has. */
export const FIRST_ARRANGEMENT = 'main';

/** More arrangements than this a design cannot have. */
export const MOST_ARRANGEMENTS = 20;

/** An arrangement about which nothing was decided. */
export const plainArrangement = (name: string): ArrangementChoices => ({ name, ...NOTHING });

const NOTHING = Object.fromEntries(PART_NAMES.map((part) => [part, partNamed(part).empty])) as Omit<
  ArrangementChoices,
  'name'
>;

export const NO_CHOICES: Choices = {
  settings: {},
  arrangements: [plainArrangement(FIRST_ARRANGEMENT)],
  answered: [],
};

/** The model as its design completes it: by settings, and by what some arrangement has one of. */
export const completeModel = (model: Model, { settings, arrangements }: Choices): Model =>
  withSingles(
    withImplicitIds(model, settings.implicitId ?? SETTINGS.implicitId.default),
    singlesOf(model, arrangements),
  );

/** The identities of entities that an arrangement places as the only one of their kind. */
function singlesOf(model: Model, arrangements: readonly ArrangementChoices[]): ReadonlySet<string> {
  const chosen = new Set(
    arrangements.flatMap(({ placements }) =>
      Object.entries(placements).flatMap(([id, place]) => (place === 'singleton' ? [id] : [])),
    ),
  );
  if (chosen.size === 0) return chosen;
  const index = indexModel(model);
  return new Set(
    [...index.entities.values()]
      .filter((entity) => chosen.has(entity.id) && canBeSingle(index, entity))
      .map(({ id }) => id),
  );
}

export const findArrangement = ({ arrangements }: Choices, name: string): ArrangementChoices | undefined =>
  arrangements.find((arrangement) => arrangement.name === name);

/** What derivation reads of an arrangement; one that is not there is as if nothing had been decided. */
export function arrangementOf(name: string, choices: Choices): Arrangement {
  const { settings, ...parts } = findArrangement(choices, name) ?? plainArrangement(name);
  return { design: choices.settings, own: settings, ...parts, name };
}

/** The choices with an arrangement in the place of the one of its name, or at the end. */
export function withArrangement(choices: Choices, changed: ArrangementChoices): Choices {
  const isThere = findArrangement(choices, changed.name) !== undefined;
  const arrangements = isThere
    ? choices.arrangements.map((known) => (known.name === changed.name ? changed : known))
    : [...choices.arrangements, changed];
  return { ...choices, arrangements };
}
