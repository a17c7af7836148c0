import { arrangementOf, type Choices } from './choices.js';
import { withSetting } from './edits.js';
import { setting } from './settings.js';
import { LEAVABLE, type Leavable } from './settings/operations.js';

/** Where operations are left out: everywhere in the arrangement, or at some resources. */
export type OfferScope = 'everywhere' | readonly string[];

/** What is left out then, by what is left out now. */
export type LeaveOut = (leftOut: readonly Leavable[]) => readonly Leavable[];

/** The choices with operations left out of a scope; what a resource inherits is not chosen for it once more. */
export function withLeftOut(
  choices: Choices,
  arrangement: string,
  scope: OfferScope,
  change: LeaveOut,
): Choices {
  const current = arrangementOf(arrangement, choices);
  if (scope === 'everywhere') {
    const value = inOrder(change(setting(current, 'leftOut').value));
    const chosen = Object.keys(current.resources).filter(
      (id) => current.resources[id]?.leftOut !== undefined,
    );
    return chosen.reduce<Choices>(
      (changed, id) => choose(changed, arrangement, id, null),
      withSetting(choices, arrangement, { level: 'arrangement' }, { name: 'leftOut', value }),
    );
  }
  const inherited = setting(current, 'leftOut').value;
  return scope.reduce((changed, id) => {
    const value = inOrder(change(setting(current, 'leftOut', { resource: id }).value));
    return choose(changed, arrangement, id, isSame(value, inherited) ? null : value);
  }, choices);
}

const choose = (
  choices: Choices,
  arrangement: string,
  id: string,
  value: readonly Leavable[] | null,
): Choices => withSetting(choices, arrangement, { level: 'resource', id }, { name: 'leftOut', value });

const inOrder = (some: readonly Leavable[]): readonly Leavable[] =>
  LEAVABLE.filter((one) => some.includes(one));

const isSame = (some: readonly Leavable[], others: readonly Leavable[]): boolean =>
  some.length === others.length && some.every((one) => others.includes(one));

/** Leaves one operation out, or offers it again. */
export const leaving =
  (operation: Leavable, isLeftOut: boolean): LeaveOut =>
  (leftOut) =>
    isLeftOut ? [...leftOut, operation] : leftOut.filter((one) => one !== operation);
