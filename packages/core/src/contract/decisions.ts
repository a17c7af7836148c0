import {
  CHOOSABLE_NAMES,
  findArrangement,
  SETTINGS,
  settingText,
  withDocumentationMoved,
  withEdit,
  withoutCustomOperation,
  withSetting,
  type Choices,
} from '../arrangement/index.js';
import type { CitedDecision, Source } from './reasons.js';
import type { Answer } from './review.js';

export const isDecision = (source: Source): source is CitedDecision =>
  source.kind !== 'statement' && source.kind !== 'release';

/** What a source is about, whatever it says: no two sources of a reason are about the same. */
export function sourceKey(source: Source): string {
  switch (source.kind) {
    case 'statement':
      return source.id;
    case 'setting':
      return `setting ${source.name}`;
    case 'placement':
    case 'word':
      return `${source.kind} ${source.subject}`;
    case 'exposure':
      return `exposure ${source.entity} ${source.of} ${source.aspect}`;
    case 'custom':
      return `custom ${source.id}`;
    case 'link':
      return `link ${source.resource} ${source.link}`;
    case 'own-link':
      return `own link ${source.id}`;
    case 'documentation':
      return `documentation ${source.of} ${source.subject}`;
    case 'release':
      return `release ${source.label}`;
  }
}

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
    case 'link':
      return ['Link:', decision.choice];
    case 'own-link':
      return ['Link of your own:', decision.relation];
    case 'documentation':
      return ['Documented:', decision.fields.join(', ')];
    case 'exposure':
      return decision.aspect === 'name'
        ? ['Called', decision.value ?? 'otherwise']
        : ['Chosen in the grid:', `${decision.aspect} ${decision.value ?? ''}`.trimEnd()];
  }
}

/** The choices without a decision; `null` where it cannot be taken back by what is cited of it. */
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
    case 'link': {
      const { resource, link } = decision;
      return withEdit(choices, arrangement, 'links', { resource, link, choice: null });
    }
    case 'own-link':
      return withEdit(choices, arrangement, 'ownLinks', { id: decision.id, link: null });
    case 'documentation':
      return withDocumentationMoved(choices, arrangement, decision.of, decision.subject, null);
  }
}

/** An answer that decides something about the design or the arrangement. */
export type DecidingAnswer = Exclude<Answer, { kind: 'accept' | 'edit' | 'name' }>;

/** The choices as an answer to an assumption, or to a finding, has them. */
export function withAnswer(choices: Choices, arrangement: string, answer: DecidingAnswer): Choices {
  switch (answer.kind) {
    case 'setting': {
      const { name, value, resource } = answer;
      // What an arrangement chose itself holds over what its design says.
      const own = findArrangement(choices, arrangement)?.settings ?? {};
      const level = Object.hasOwn(own, name) ? ('arrangement' as const) : ('design' as const);
      const place = resource === undefined ? { level } : { level: 'resource' as const, id: resource };
      return withSetting(choices, arrangement, place, { name, value });
    }
    case 'placement': {
      const { of: kind, subject, place } = answer;
      return withEdit(choices, arrangement, 'placements', { kind, subject, place });
    }
    case 'word':
      return withEdit(choices, arrangement, 'words', { subject: answer.subject, word: answer.word });
    case 'custom': {
      const { operation } = answer;
      return withEdit(choices, arrangement, 'customOperations', { id: operation.id, operation });
    }
    case 'link': {
      const { resource, link, choice } = answer;
      return withEdit(choices, arrangement, 'links', { resource, link, choice });
    }
    case 'own-link':
      return withEdit(choices, arrangement, 'ownLinks', { id: answer.id, link: answer.link });
    case 'documentation':
      return withDocumentationMoved(choices, arrangement, answer.of, answer.subject, answer.to);
    case 'example':
      return withEdit(choices, arrangement, 'examples', { id: answer.id, example: answer.example });
    case 'said': {
      const { of: kind, subject, field, text } = answer;
      return withEdit(choices, arrangement, 'documentation', { kind, subject, field, text });
    }
    case 'exposure': {
      const { entity, of: member, aspect } = answer;
      return withEdit(choices, arrangement, 'exposures', { entity, member, aspect, value: null });
    }
  }
}
