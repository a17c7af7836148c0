import type { Extension } from '@codemirror/state';
import { EditorView } from '@codemirror/view';

/** The look of every editor: our ground, ink and mono face. */
export const editorTheme = (): Extension =>
  EditorView.theme({
    '&': { height: '100%', backgroundColor: 'var(--sheet)', color: 'var(--ink)', fontSize: '12px' },
    '&.cm-focused': { outline: 'none' },
    '.cm-scroller': { fontFamily: 'var(--mono)', lineHeight: '17px', overflow: 'auto' },
    '.cm-content': { padding: '4px 0', caretColor: 'var(--ink)' },
    '.cm-line': { padding: '0 12px 0 6px' },
    '.cm-gutters': { backgroundColor: 'var(--sheet)', color: 'var(--quiet)', border: 'none' },
    '.cm-lineNumbers .cm-gutterElement': {
      padding: '0 6px 0 12px',
      fontFamily: 'var(--mono)',
      fontSize: '11px',
      minWidth: '34px',
    },
    '.cm-activeLine': { backgroundColor: 'color-mix(in srgb, var(--tint) 55%, transparent)' },
    '.cm-activeLineGutter': { backgroundColor: 'transparent', color: 'var(--ink)' },
    '.cm-cursor': { borderLeftColor: 'var(--ink)', borderLeftWidth: '2px' },
    '&.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground, .cm-selectionBackground': {
      backgroundColor: 'color-mix(in srgb, var(--accent) 26%, transparent)',
    },
    '.cm-panels': { backgroundColor: 'var(--ground)', color: 'var(--ink)', borderColor: 'var(--rule)' },
    '.cm-panel input, .cm-panel button': {
      fontFamily: 'var(--sans)',
      backgroundImage: 'none',
      backgroundColor: 'var(--sheet)',
      color: 'var(--ink)',
      border: '1px solid var(--strong-rule)',
      borderRadius: '3px',
    },
    '.cm-searchMatch': { backgroundColor: 'var(--mark-tint)', outline: '1px solid var(--mark)' },
    '.cm-tooltip': {
      backgroundColor: 'var(--sheet)',
      border: '1px solid var(--strong-rule)',
      borderRadius: '4px',
      color: 'var(--ink)',
    },
    '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'var(--mono)', maxHeight: '220px' },
    '.cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected]': {
      backgroundColor: 'var(--tint)',
      color: 'var(--ink)',
    },
    '.cm-completionDetail': {
      color: 'var(--quiet)',
      fontStyle: 'normal',
      fontFamily: 'var(--sans)',
      marginLeft: '12px',
    },
    '.cm-selected-statement': { backgroundColor: 'var(--tint)', boxShadow: 'inset 3px 0 0 var(--accent)' },
    '.cm-implied': { padding: '6px 10px', fontFamily: 'var(--sans)', maxWidth: '520px' },
    '.cm-implied strong': { display: 'block', fontWeight: '600' },
    '.cm-implied code': { display: 'block', whiteSpace: 'pre', overflow: 'hidden', marginBottom: '4px' },
    '.cm-rename': { padding: '4px 12px', fontFamily: 'var(--sans)' },
    '.cm-rename input': { width: '220px', padding: '1px 6px', fontFamily: 'var(--mono)' },
    '.cm-foldGutter .cm-gutterElement': { color: 'var(--quiet)', cursor: 'pointer', width: '12px' },
    '.cm-foldPlaceholder': {
      background: 'var(--tint)',
      border: 'none',
      color: 'var(--accent)',
      padding: '0 6px',
    },
    '.cm-bad-line': { backgroundColor: 'var(--wrong-tint)', boxShadow: 'inset 3px 0 0 var(--wrong)' },
    '.cm-bad-word': { textDecoration: 'underline wavy var(--wrong)', textUnderlineOffset: '3px' },
    '.cm-diagnostic': {
      fontFamily: 'var(--sans)',
      color: 'var(--wrong)',
      marginLeft: '20px',
      whiteSpace: 'normal',
    },
    '.cm-diagnostic button': {
      fontFamily: 'var(--sans)',
      marginLeft: '10px',
      padding: '0 8px',
      border: '1px solid var(--accent)',
      borderRadius: '4px',
      background: 'var(--sheet)',
      color: 'var(--accent)',
      cursor: 'pointer',
    },
    '.cm-diagnostic-code': {
      marginLeft: '12px',
      fontFamily: 'var(--mono)',
      fontSize: '11px',
      color: 'var(--quiet)',
    },
  });
