import { camelCase, firstPlural, type Identities, type Relationship } from '../model/index.js';
import { editText, parse } from '../notation/index.js';
import type { Choices } from './choices.js';
import { PATH_WORD, pluralSubject } from './parts/words.js';

/** A model with what was decided about it. */
export interface KeptDesign {
  readonly text: string;
  readonly identities: Identities;
  readonly choices: Choices;
}

/**
 * A design of a version before the table of nouns, which would be renamed by it: the plurals it had are words of
 * every arrangement now, and roles that were derived from them are written.
 */
export function keepPlurals(design: KeptDesign): KeptDesign {
  const { identities } = design;
  const parsed = parse(design.text, identities);
  const kept: Record<string, string> = {};
  let { text } = design;
  for (const declaration of parsed.model.declarations) {
    if (declaration.kind === 'entity') {
      const plural = firstPlural(declaration.name);
      if (plural !== null && PATH_WORD.test(plural)) kept[pluralSubject(declaration.id)] = plural;
    } else if (declaration.kind !== 'value') {
      const role = firstRole(declaration);
      if (role === null) continue;
      // An edit changes one line and moves none, so that places stay.
      text = editText(text, parsed, { kind: 'name-role', relationship: declaration.id, role });
    }
  }
  const arrangements = design.choices.arrangements.map((arrangement) => ({
    ...arrangement,
    words: { ...kept, ...arrangement.words },
  }));
  return { identities, text, choices: { ...design.choices, arrangements } };
}

/** The role that was derived for a relationship, where none is written and today's is another one. */
const firstRole = ({ role, cardinality, to }: Relationship): string | null =>
  role === null && cardinality === 'many' ? firstPlural(camelCase(to)) : null;
