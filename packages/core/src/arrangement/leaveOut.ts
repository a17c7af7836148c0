import type { Choices } from './choices.js';
import { withSettingIn, type SettingScope } from './settingIn.js';
import { LEAVABLE, type Leavable } from './settings/operations.js';

/** What is left out then, by what is left out now. */
export type LeaveOut = (leftOut: readonly Leavable[]) => readonly Leavable[];

/** The choices with operations left out of a scope. */
export const withLeftOut = (
  choices: Choices,
  arrangement: string,
  scope: SettingScope,
  change: LeaveOut,
): Choices => withSettingIn(choices, arrangement, scope, 'leftOut', (current) => inOrder(change(current)));

const inOrder = (some: readonly Leavable[]): readonly Leavable[] =>
  LEAVABLE.filter((one) => some.includes(one));

/** Leaves one operation out, or offers it again. */
export const leaving =
  (operation: Leavable, isLeftOut: boolean): LeaveOut =>
  (leftOut) =>
    isLeftOut ? [...leftOut, operation] : leftOut.filter((one) => one !== operation);
