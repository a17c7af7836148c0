import {
  exposureChoice,
  findArrangement,
  resolvePlacement,
  plainArrangement,
  withArrangement,
  type ArrangementChoices,
  type Aspect,
  type ChoiceLevel,
  type ChoosableSetting,
  type Choices,
  type CustomOperation,
  type Exposure,
  type ExposureChoice,
  type Placement,
  type SettingsById,
  type SettingValue,
  type SettingValues,
  type SubjectKind,
} from '@isomeros/core/arrangement';

/** Where a setting is chosen: at a level, and there for a resource or an operation where it is for one. */
export type ChoicePlace =
  | { readonly level: 'design' | 'arrangement' }
  | { readonly level: 'resource' | 'operation'; readonly id: string };

/** The choices with a setting chosen at a place. */
export const withSetting = (
  choices: Choices,
  arrangement: string,
  place: ChoicePlace,
  name: ChoosableSetting,
  value: SettingValue,
): Choices => changed(choices, arrangement, place, (values) => ({ ...values, [name]: value }));

/** The choices with a setting no longer chosen at a place: it inherits from above. */
export const withoutSetting = (
  choices: Choices,
  arrangement: string,
  place: ChoicePlace,
  name: ChoosableSetting,
): Choices =>
  changed(choices, arrangement, place, (values) =>
    Object.fromEntries(Object.entries(values).filter(([known]) => known !== name)),
  );

/** The choices with something placed; a place that it has anyhow is not kept. */
export function withPlacement(
  choices: Choices,
  arrangement: string,
  kind: SubjectKind,
  subject: string,
  place: Placement,
): Choices {
  return ofArrangement(choices, arrangement, (own) => {
    const others = Object.fromEntries(Object.entries(own.placements).filter(([known]) => known !== subject));
    const isUsual = resolvePlacement({}, kind, subject).place === place;
    return { ...own, placements: isUsual ? others : { ...others, [subject]: place } };
  });
}

/** The choices with a path word for something, or with the derived one again. */
export function withWord(
  choices: Choices,
  arrangement: string,
  subject: string,
  word: string | null,
): Choices {
  return ofArrangement(choices, arrangement, (own) => {
    const others = Object.fromEntries(Object.entries(own.words).filter(([known]) => known !== subject));
    return { ...own, words: word === null ? others : { ...others, [subject]: word } };
  });
}

/** The choices with an operation of one's own in the place of the one of its id, or at the end. */
export const withCustomOperation = (
  choices: Choices,
  arrangement: string,
  custom: CustomOperation,
): Choices =>
  ofArrangement(choices, arrangement, (own) => {
    const isThere = own.customOperations.some(({ id }) => id === custom.id);
    const customOperations = isThere
      ? own.customOperations.map((known) => (known.id === custom.id ? custom : known))
      : [...own.customOperations, custom];
    return { ...own, customOperations };
  });

/** The choices without it, and without the path word that was chosen for it. */
export const withoutCustomOperation = (choices: Choices, arrangement: string, id: string): Choices =>
  withWord(
    ofArrangement(choices, arrangement, (own) => ({
      ...own,
      customOperations: own.customOperations.filter((known) => known.id !== id),
    })),
    arrangement,
    id,
    null,
  );

/** The choices with one cell of the exposure grid chosen, or as the model says again. */
export function withExposure<A extends Aspect>(
  choices: Choices,
  arrangement: string,
  { entity, member, aspect }: { readonly entity: string; readonly member: string; readonly aspect: A },
  value: Exposure[A] | null,
): Choices {
  return ofArrangement(choices, arrangement, (own) => {
    const choice = exposureChoice(own.exposures, entity, member);
    const others = Object.entries(choice).filter(([known]) => known !== aspect);
    const next: ExposureChoice = Object.fromEntries(value === null ? others : [...others, [aspect, value]]);
    const members = Object.hasOwn(own.exposures, entity) ? (own.exposures[entity] ?? {}) : {};
    return { ...own, exposures: replaced(own.exposures, entity, replaced(members, member, next)) };
  });
}

/** The object with another value under a name; an empty value is not kept. */
function replaced<T extends object>(
  values: Readonly<Record<string, T>>,
  name: string,
  value: T,
): Readonly<Record<string, T>> {
  const others = Object.entries(values).filter(([known]) => known !== name);
  return Object.fromEntries(Object.keys(value).length === 0 ? others : [...others, [name, value]]);
}

function ofArrangement(
  choices: Choices,
  name: string,
  change: (own: ArrangementChoices) => ArrangementChoices,
): Choices {
  return withArrangement(choices, change(findArrangement(choices, name) ?? plainArrangement(name)));
}

function changed(
  choices: Choices,
  arrangement: string,
  place: ChoicePlace,
  change: (values: SettingValues) => SettingValues,
): Choices {
  switch (place.level) {
    case 'design':
      return { ...choices, settings: change(choices.settings) };
    case 'arrangement':
      return ofArrangement(choices, arrangement, (own) => ({ ...own, settings: change(own.settings) }));
    case 'resource':
      return ofArrangement(choices, arrangement, (own) => ({
        ...own,
        resources: changedAt(own.resources, place.id, change),
      }));
    case 'operation':
      return ofArrangement(choices, arrangement, (own) => ({
        ...own,
        operations: changedAt(own.operations, place.id, change),
      }));
  }
}

/** Where nothing is chosen any more, no entry is left. */
function changedAt(
  byId: SettingsById,
  id: string,
  change: (values: SettingValues) => SettingValues,
): SettingsById {
  return replaced(byId, id, change(Object.hasOwn(byId, id) ? (byId[id] ?? {}) : {}));
}

/** The place at which a setting of a level is chosen. */
export function choicePlace(level: ChoiceLevel, resource: string, operation: string): ChoicePlace {
  switch (level) {
    case 'design':
    case 'arrangement':
      return { level };
    case 'resource':
      return { level, id: resource };
    case 'operation':
      return { level, id: operation };
  }
}
