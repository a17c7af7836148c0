import type { ArrangementChoices, Choices, SettingLevel, SettingValue } from '@isomeros/core/arrangement';

/** What was decided besides the text. */
export interface NewChoices extends Pick<Choices, 'settings' | 'answered'> {
  /** What was decided about each arrangement. One, called main, where it is left out. */
  readonly arrangements?: readonly ArrangementBody[];
}

/** What is decided about an arrangement whose name stands in the path; parts that are left out are empty. */
export type NewArrangement = Partial<Omit<ArrangementChoices, 'name' | 'settings'>> &
  Pick<ArrangementChoices, 'settings'>;

/** What was decided about an arrangement; parts that are left out are empty. */
export type ArrangementBody = Partial<Omit<ArrangementChoices, 'name'>> & Pick<ArrangementChoices, 'name'>;

/** A setting with where its value comes from. */
export interface ResolvedSettingView {
  readonly name: string;
  readonly title: string;
  readonly value: SettingValue;
  readonly level: SettingLevel;
}

/** What was decided about an arrangement, every setting with its value. */
export interface ArrangementView extends Omit<ArrangementChoices, 'settings'> {
  readonly settings: readonly ResolvedSettingView[];
}

export interface ArrangementName {
  /** @pattern ^[\p{L}\p{N}](?:[\p{L}\p{N} ._-]{0,58}[\p{L}\p{N}])?$ */
  readonly name: string;
}
