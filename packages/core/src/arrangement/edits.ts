import { findArrangement, plainArrangement, withArrangement, type Choices } from './choices.js';
import type { DocumentedKind } from './documentation.js';
import { saidOfKind } from './parts/documentation.js';
import { entryNamed } from './parts/part.js';
import { partNamed, type PartEdit, type PartName } from './parts/index.js';
import { editSettings, type SettingEdit } from './parts/settings.js';

/** The choices with something decided about a part of an arrangement, or taken back. */
export function withEdit<Name extends PartName>(
  choices: Choices,
  arrangement: string,
  part: Name,
  edit: PartEdit<Name>,
): Choices {
  const own = findArrangement(choices, arrangement) ?? plainArrangement(arrangement);
  return withArrangement(choices, { ...own, [part]: partNamed(part).edit(own[part], edit) });
}

/** Where a setting is chosen: at a level, and there for a resource or an operation where it is for one. */
export type ChoicePlace =
  | { readonly level: 'design' | 'arrangement' }
  | { readonly level: 'resource' | 'operation'; readonly id: string };

/** The choices with a setting chosen at a place, or inherited there again. */
export function withSetting(
  choices: Choices,
  arrangement: string,
  place: ChoicePlace,
  edit: SettingEdit,
): Choices {
  switch (place.level) {
    case 'design':
      return { ...choices, settings: editSettings(choices.settings, edit) };
    case 'arrangement':
      return withEdit(choices, arrangement, 'settings', edit);
    case 'resource':
      return withEdit(choices, arrangement, 'resources', { id: place.id, ...edit });
    case 'operation':
      return withEdit(choices, arrangement, 'operations', { id: place.id, ...edit });
  }
}

/** The choices with what is said of a subject said of another, in the place of what was said of that, or dropped. */
export function withDocumentationMoved(
  choices: Choices,
  arrangement: string,
  kind: DocumentedKind,
  subject: string,
  to: string | null,
): Choices {
  const all = saidOfKind(findArrangement(choices, arrangement)?.documentation ?? {}, kind);
  return Object.entries(entryNamed(all, subject) ?? {}).reduce((before, [field, text]) => {
    const without = withEdit(before, arrangement, 'documentation', { kind, subject, field, text: null });
    return to === null
      ? without
      : withEdit(without, arrangement, 'documentation', { kind, subject: to, field, text });
  }, choices);
}

/** The choices without an operation of one's own, and without the path word that was chosen for it. */
export const withoutCustomOperation = (choices: Choices, arrangement: string, id: string): Choices =>
  withEdit(
    withEdit(choices, arrangement, 'customOperations', { id, operation: null }),
    arrangement,
    'words',
    { subject: id, word: null },
  );
