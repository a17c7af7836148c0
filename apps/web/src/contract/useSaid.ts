import { entryNamed, findArrangement, saidOfKind, wrongInField } from '@isomeros/core/arrangement';
import type { DocumentedKind, SaidOf } from '@isomeros/core/arrangement';
import { operationNaming, withOperationKeys, type Contract } from '@isomeros/core/contract';
import { memoize } from '@isomeros/core/model';
import { useState } from 'react';
import { useAppSelector } from '../app/store.js';
import { useDecide } from '../design/useDecide.js';
import { arrangementName } from '../design/viewSlice.js';

interface Said<Kind extends DocumentedKind> {
  /** What is said in each field, with the names that operations have now. */
  readonly said: SaidOf<Kind>;
  /** Says something in a field; an empty text takes it back. */
  readonly say: (field: keyof SaidOf<Kind> & string, text: string) => void;
  /** What was wrong with what was said last; `null` where nothing was. */
  readonly wrong: string | null;
}

const NOTHING = {};

const namingOf = memoize(({ operations }: Contract) => operationNaming(operations));

/** What is said of one subject in the arrangement that is looked at, and a way to say something else. */
export function useSaid<Kind extends DocumentedKind>(
  contract: Contract,
  kind: Kind,
  subject: string,
): Said<Kind> {
  const documentation = useAppSelector(
    (state) => findArrangement(state.document.choices, arrangementName(state))?.documentation ?? NOTHING,
  );
  const decide = useDecide();
  const [wrong, setWrong] = useState<string | null>(null);
  const { keyOf, named } = namingOf(contract);
  const kept = entryNamed(saidOfKind(documentation, kind), subject) ?? {};
  const said = Object.fromEntries(
    Object.entries(kept).map(([field, text]) => [field, named(text)]),
  ) as SaidOf<Kind>;
  return {
    said,
    say: (field, given) => {
      const written = given.trim();
      // Only where CommonMark is written do brackets lead to operations.
      const text = field === 'description' ? withOperationKeys(written, (id) => keyOf.get(id)) : written;
      const problem = text === '' ? null : wrongInField(kind, field, text);
      setWrong(problem === null ? null : `${field}: ${problem}`);
      if (problem === null)
        decide('documentation', { kind, subject, field, text: text === '' ? null : text });
    },
    wrong,
  };
}
