import {
  SETTINGS,
  settingText,
  withEdit,
  withoutCustomOperation,
  withSetting,
  CHOOSABLE_NAMES,
  type Choices,
} from '@isomeros/core/arrangement';
import type { CitedDecision } from '@isomeros/core/contract';

/** A decision in words, in two parts: what it is about, and how it was decided. */
export function decisionText(decision: CitedDecision): readonly [about: string, how: string] {
  switch (decision.kind) {
    case 'setting':
      return [SETTINGS[decision.name].title, settingText(decision.value)];
    case 'placement':
      return ['Placed', decision.place];
    case 'word':
      return ['Called', decision.word];
    case 'custom':
      return ['Operation', decision.name];
    case 'exposure':
      return [`${decision.aspect} of ${decision.of}`, 'chosen'];
  }
}

/** The choices without a decision; `null` where it cannot be taken back from here. */
export function withoutDecision(
  choices: Choices,
  arrangement: string,
  decision: CitedDecision,
): Choices | null {
  switch (decision.kind) {
    case 'setting': {
      const { level } = decision;
      const name = CHOOSABLE_NAMES.find((known) => known === decision.name);
      // Which resource or operation it was chosen for is not cited.
      if (name === undefined || (level !== 'design' && level !== 'arrangement')) return null;
      return withSetting(choices, arrangement, { level }, { name, value: null });
    }
    case 'placement':
      return withEdit(choices, arrangement, 'placements', { subject: decision.subject, place: null });
    case 'word':
      return withEdit(choices, arrangement, 'words', { subject: decision.subject, word: null });
    case 'exposure': {
      const { entity, of: member, aspect } = decision;
      return withEdit(choices, arrangement, 'exposures', { entity, member, aspect, value: null });
    }
    case 'custom':
      return withoutCustomOperation(choices, arrangement, decision.id);
  }
}
