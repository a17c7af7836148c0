import { placeOf } from './editorContext.js';
import type { EditorContext } from './editorContext.js';
import {
  autocompletion,
  completionKeymap,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete';
import { codeFolding, foldGutter, foldKeymap, foldService } from '@codemirror/language';
import type { Extension } from '@codemirror/state';
import { EditorView, hoverTooltip, keymap, type Command, type Tooltip } from '@codemirror/view';
import { findOccurrences, format, occurrenceAt, suggest } from '@isomeros/core/notation';
import { minimalChange } from './minimalChange.js';
import { openRename, renamePanel } from './renamePanel.js';

/** Completion, hover, folding, rename, format and go to definition for the notation. */
export function editorFeatures(context: () => EditorContext): Extension {
  return [
    autocompletion({ override: [complete], icons: false }),
    hoverTooltip((view, position) => hover(view, position, context()), { hoverTime: 350 }),
    foldBlocks,
    codeFolding({ placeholderText: '…' }),
    foldGutter({ openText: '⌄', closedText: '›' }),
    renamePanel(context),
    keymap.of([
      { key: 'F2', run: openRename },
      { key: 'F12', run: goToDefinition },
      { key: 'Shift-Alt-f', run: formatText(context) },
      ...completionKeymap,
      ...foldKeymap,
    ]),
    EditorView.domEventHandlers({
      click: (event, view) => (event.ctrlKey || event.metaKey ? goToDefinition(view) : false),
    }),
  ];
}

function complete({ state, pos, explicit }: CompletionContext): CompletionResult | null {
  const { line, column } = placeOf(state, pos);
  const found = suggest(state.doc.toString(), line, column);
  const typed = column - found.column;
  const word = state.sliceDoc(pos - typed, pos);
  // A word that is whole already is not offered again: Enter then ends the line.
  if (found.options.some(({ label, write }) => label === word && write === undefined)) return null;
  if (found.options.length === 0 || (typed === 0 && !explicit && column === 1)) return null;
  return {
    from: pos - typed,
    options: found.options.map(({ label, detail, write }) => ({ label, detail, apply: write ?? label })),
  };
}

/** A block is folded below its first line. */
const foldBlocks = foldService.of((state, lineStart) => {
  const line = state.doc.lineAt(lineStart);
  if (!/^(entity|value)\b/.test(line.text)) return null;
  let last = line.number;
  for (
    let next = line.number + 1;
    next <= state.doc.lines && /^\s+\S/.test(state.doc.line(next).text);
    next++
  )
    last = next;
  return last === line.number ? null : { from: line.to, to: state.doc.line(last).to };
});

const MOST_SHOWN = 8;

async function hover(view: EditorView, position: number, context: EditorContext): Promise<Tooltip | null> {
  const implied = await context.implied(view.state.doc.lineAt(position).number);
  if (implied === null || (implied.paths.length === 0 && implied.members.length === 0)) return null;
  return {
    pos: view.state.doc.lineAt(position).from,
    above: true,
    create: () => {
      const dom = document.createElement('div');
      dom.className = 'cm-implied';
      if (implied.paths.length > 0) dom.append(part('Paths', implied.paths));
      if (implied.members.length > 0) dom.append(part('Members', implied.members));
      return { dom };
    },
  };
}

function part(title: string, entries: readonly string[]): HTMLElement {
  const element = document.createElement('div');
  const heading = document.createElement('strong');
  heading.textContent = title;
  const list = document.createElement('code');
  const more = entries.length > MOST_SHOWN ? `\nand ${entries.length - MOST_SHOWN} more` : '';
  list.textContent = entries.slice(0, MOST_SHOWN).join('\n') + more;
  element.append(heading, list);
  return element;
}

const goToDefinition: Command = (view) => {
  const { line, column } = placeOf(view.state, view.state.selection.main.head);
  const found = findOccurrences(view.state.doc.toString());
  const here = occurrenceAt(found, line, column);
  const definition =
    here === null ? undefined : found.find(({ symbol, defines }) => defines && symbol === here.symbol);
  if (definition === undefined) return false;
  const anchor = view.state.doc.line(definition.place.line).from + definition.place.column - 1;
  view.dispatch({ selection: { anchor }, effects: EditorView.scrollIntoView(anchor, { y: 'center' }) });
  return true;
};

/** Lays the text out as it is printed, when it has no errors. */
export const formatText =
  (context: () => EditorContext): Command =>
  (view) => {
    const text = view.state.doc.toString();
    const result = format(text);
    if (!result.ok) {
      context().tell(`Not formatted: line ${result.diagnostics[0]?.place.line ?? 1} has an error.`);
      return true;
    }
    const change = minimalChange(text, result.text);
    if (change !== null) view.dispatch({ changes: change, userEvent: 'input.format' });
    return true;
  };
