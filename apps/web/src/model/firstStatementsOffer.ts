import { StateField, Transaction, type EditorState, type Extension } from '@codemirror/state';
import { Decoration, EditorView, WidgetType, type DecorationSet } from '@codemirror/view';
import { FIRST_STATEMENTS } from '../design/firstStatements.js';

const SAYS_NOTHING = /^\s*(?:design\s+"[^"\n]*"\s*)?$/;

/** Offers something to begin with below a text that says nothing yet; it is gone at the first keystroke. */
export const firstStatementsOffer = (): Extension => field;

const field = StateField.define<DecorationSet>({
  create: offerFor,
  update(offer, transaction) {
    if (!transaction.docChanged) return offer;
    const isTyped = transaction.annotation(Transaction.userEvent) !== undefined;
    return isTyped ? Decoration.none : offerFor(transaction.state);
  },
  provide: (offer) => EditorView.decorations.from(offer),
});

function offerFor({ doc }: EditorState): DecorationSet {
  if (doc.length > 400 || !SAYS_NOTHING.test(doc.toString())) return Decoration.none;
  return Decoration.set([Decoration.widget({ widget: new Offer(), block: true, side: 1 }).range(doc.length)]);
}

class Offer extends WidgetType {
  override eq(): boolean {
    return true;
  }

  override toDOM(view: EditorView): HTMLElement {
    const element = document.createElement('div');
    element.className = 'cm-first-statements';
    const text = document.createElement('pre');
    text.textContent = FIRST_STATEMENTS;
    const button = document.createElement('button');
    button.type = 'button';
    button.textContent = 'Begin with these';
    button.addEventListener('click', () => begin(view));
    element.append(text, button);
    return element;
  }

  override ignoreEvent(): boolean {
    return true;
  }
}

function begin(view: EditorView): void {
  const { doc } = view.state;
  const gap = doc.toString().trim() === '' ? '' : doc.toString().endsWith('\n') ? '\n' : '\n\n';
  view.dispatch({
    changes: { from: doc.length, insert: gap + FIRST_STATEMENTS },
    userEvent: 'input.begin',
  });
  view.focus();
}
