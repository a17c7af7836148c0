import { StateEffect, StateField, type Extension } from '@codemirror/state';
import { showPanel, type Command, type EditorView, type Panel } from '@codemirror/view';
import { findOccurrences, occurrenceAt, renameAt } from '@isomeros/core/notation';
import { type EditorContext } from './editorContext.js';
import { placeOf } from './editorContext.js';
import { minimalChange } from './minimalChange.js';
import { amount } from '../app/parts/amount.js';

const setOpen = StateEffect.define<boolean>();

/** A line above the text that asks for the new name of what the cursor is on. */
export function renamePanel(context: () => EditorContext): Extension {
  const open = StateField.define<boolean>({
    create: () => false,
    update: (value, transaction) =>
      transaction.effects.reduce((now, effect) => (effect.is(setOpen) ? effect.value : now), value),
    provide: (field) =>
      showPanel.from(field, (isOpen) => (isOpen ? (view) => createPanel(view, context) : null)),
  });
  return open;
}

export const openRename: Command = (view) => {
  view.dispatch({ effects: setOpen.of(true) });
  return true;
};

function createPanel(view: EditorView, context: () => EditorContext): Panel {
  const { line, column } = placeOf(view.state, view.state.selection.main.head);
  const found = findOccurrences(view.state.doc.toString());
  const here = occurrenceAt(found, line, column);
  const uses = found.filter(({ symbol }) => symbol === here?.symbol).length;
  const dom = document.createElement('form');
  dom.className = 'cm-rename';
  const label = document.createElement('label');
  label.textContent =
    here === null
      ? 'There is no name under the cursor. '
      : `Rename ${here.name}, in ${amount(uses, 'place')}, to `;
  const input = document.createElement('input');
  input.value = here?.name ?? '';
  input.disabled = here === null;
  input.setAttribute('aria-label', 'New name');
  const close = (): void => {
    view.dispatch({ effects: setOpen.of(false) });
    view.focus();
  };
  dom.addEventListener('submit', (event) => {
    event.preventDefault();
    const before = view.state.doc.toString();
    const result = renameAt(before, line, column, input.value.trim());
    if (!result.ok) {
      context().tell(result.message);
      return;
    }
    const change = minimalChange(before, result.text);
    if (change !== null) view.dispatch({ changes: change, userEvent: 'input.rename' });
    close();
  });
  dom.addEventListener('keydown', (event) => {
    if (event.key === 'Escape') close();
  });
  dom.append(label, input);
  return {
    dom,
    top: true,
    mount: () => {
      input.focus();
      input.select();
    },
  };
}
