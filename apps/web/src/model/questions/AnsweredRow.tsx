import type { Assumption } from '@isomeros/core/contract';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { choicesMade } from '../../design/documentSlice.js';

/** A question that was answered, and how; it can be opened again. */
export function AnsweredRow({ assumption }: { readonly assumption: Assumption }): React.JSX.Element {
  const choices = useAppSelector((state) => state.document.choices);
  const dispatch = useAppDispatch();
  const taken = assumption.options.find(({ assumed }) => assumed);
  const reopen = (): void => {
    const names = assumption.options.flatMap(({ answer }) =>
      answer.kind === 'setting' ? [answer.name] : [],
    );
    const settings = Object.fromEntries(
      Object.entries(choices.settings).filter(([name]) => !names.some((known) => known === name)),
    );
    const answered = choices.answered.filter((id) => id !== assumption.id);
    dispatch(choicesMade({ ...choices, settings, answered }));
  };
  return (
    <li className="question answered">
      <div className="asked">
        <span>{assumption.question}</span> <span className="strong">{taken?.label}</span>
      </div>
      <button type="button" className="text-button" onClick={reopen}>
        Ask again
      </button>
    </li>
  );
}
