import { findOccurrences, insertBelow, removeStatement, renameAt } from '@isomeros/core/notation';
import { useCallback, useState } from 'react';
import { useAppDispatch, useAppStore } from '../../app/store.js';
import { textEdited } from '../../design/documentSlice.js';
import { applyEdit, type TextEdit } from './edits.js';

export interface Edits {
  /** Why the last edit could not be made; `null` when it was. */
  readonly problem: string | null;
  readonly apply: (edit: TextEdit) => void;
  readonly remove: (id: string) => void;
  readonly insert: (id: string, lines: readonly string[]) => void;
  /** Gives what an identity stands for another name, everywhere it is used. */
  readonly rename: (id: string, from: string, to: string) => void;
}

/** Edits from sheets: each becomes a change of the text, and is undone like one. */
export function useEdits(): Edits {
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const [problem, setProblem] = useState<string | null>(null);
  const apply = useCallback(
    (edit: TextEdit): void => {
      const { text, design } = store.getState().document;
      setProblem(null);
      if (design !== null) dispatch(textEdited(applyEdit(text, design.identities, edit)));
    },
    [store, dispatch],
  );
  const rename = (id: string, from: string, to: string): void => {
    if (from === to) return;
    apply((text, parsed) => {
      const place = parsed.places.get(id);
      const name = findOccurrences(text).find(
        (occurrence) => occurrence.place.line === place?.line && occurrence.name === from,
      );
      const result = name === undefined ? null : renameAt(text, name.place.line, name.place.column, to);
      if (result?.ok === true) return result.text;
      setProblem(result?.message ?? `${from} is no longer there.`);
      return text;
    });
  };
  return {
    problem,
    apply,
    rename,
    remove: (id) =>
      apply((text, parsed) =>
        parsed.places.has(id) ? removeStatement(text, parsed.places.get(id) ?? NOWHERE) : text,
      ),
    insert: (id, lines) =>
      apply((text, parsed) =>
        parsed.places.has(id) ? insertBelow(text, parsed.places.get(id) ?? NOWHERE, lines) : text,
      ),
  };
}

const NOWHERE = { line: 1, endLine: 1, column: 1, length: 0 };
