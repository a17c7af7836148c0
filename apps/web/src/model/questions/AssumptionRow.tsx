import type { ChangeSummary } from '@isomeros/core/comparison';
import { withAnswer, type Assumption, type AssumptionOption, type Reasons } from '@isomeros/core/contract';
import type { ModelEdit } from '@isomeros/core/model';
import { Button, Input, Space } from 'antd';
import { useState } from 'react';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { choicesMade } from '../../design/documentSlice.js';
import { useModelEdit } from '../../design/useModelEdit.js';
import { amount } from '../../app/parts/amount.js';
import { arrangementName } from '../../design/viewSlice.js';

interface Props {
  readonly assumption: Assumption;
  /** What the one other answer would change, where that is known. */
  readonly summary: ChangeSummary | null;
  readonly onStatement: (line: number) => void;
}

/** One question in plain words, its answers one click away. */
export function AssumptionRow({ assumption, summary, onStatement }: Props): React.JSX.Element {
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const places = useAppSelector((state) => state.derived.reading?.places);
  const dispatch = useAppDispatch();
  const edit = useModelEdit();
  const [naming, setNaming] = useState<Extract<AssumptionOption['answer'], { kind: 'name' }> | null>(null);
  const other = otherAnswer(assumption);
  const consequence = summary === null || other === null ? null : inWords(other.label, summary);
  const statement = citedStatement(assumption.reasons);
  const place = statement === null ? undefined : places?.[statement];
  const choose = ({ answer }: AssumptionOption): void => {
    switch (answer.kind) {
      case 'accept':
        dispatch(choicesMade({ ...choices, answered: [...choices.answered, assumption.id] }));
        return;
      case 'edit':
        edit(answer.edit);
        return;
      case 'name':
        setNaming(answer);
        return;
      default:
        dispatch(choicesMade(withAnswer(choices, arrangement, answer)));
    }
  };
  return (
    <li className="question">
      <div className="asked">
        <div className="strong">
          {place === undefined ? (
            assumption.question
          ) : (
            <button type="button" className="plain-button" onClick={() => onStatement(place.line)}>
              {assumption.question}
            </button>
          )}
        </div>
        <div className="quiet">{consequence ?? assumption.ground}</div>
      </div>
      {naming === null ? (
        <Space.Compact>
          {assumption.options.map((option) => (
            <Button
              key={option.label}
              className={option.assumed ? 'assumed' : ''}
              title={option.assumed ? 'Keep it so, and ask no more' : undefined}
              onClick={() => choose(option)}
            >
              {option.label}
              {option.assumed && ', assumed'}
            </Button>
          ))}
        </Space.Compact>
      ) : (
        <NameField
          onLeave={() => setNaming(null)}
          onName={(name) => edit(namingEdit(naming.of, naming.relationship, name))}
        />
      )}
    </li>
  );
}

const namingEdit = (of: 'name-role' | 'name-way-back', relationship: string, name: string): ModelEdit =>
  of === 'name-role' ? { kind: of, relationship, role: name } : { kind: of, relationship, back: name };

interface NameFieldProps {
  readonly onName: (name: string) => void;
  readonly onLeave: () => void;
}

function NameField({ onName, onLeave }: NameFieldProps): React.JSX.Element {
  const [name, setName] = useState('');
  const fits = /^[a-z][A-Za-z0-9]*$/.test(name);
  return (
    <form
      className="name-field"
      onSubmit={(event) => {
        event.preventDefault();
        if (fits) onName(name);
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onLeave();
      }}
    >
      <Input
        autoFocus
        className="mono"
        aria-label="The name"
        placeholder="in camelCase"
        status={name === '' || fits ? '' : 'error'}
        value={name}
        onChange={({ target }) => setName(target.value)}
      />
      <Button htmlType="submit" disabled={!fits}>
        Call it so
      </Button>
      <Button onClick={onLeave}>Leave</Button>
    </form>
  );
}

/** The statement an assumption is about, where it is about one. */
function citedStatement(reasons: Reasons): string | null {
  const sources = reasons.flatMap(({ because }) => because);
  const [first] = sources;
  return first?.kind === 'statement' ? first.id : null;
}

interface OtherAnswer {
  readonly label: string;
  readonly edit: ModelEdit;
}

/** The one other answer, where it edits the model. */
export function otherAnswer({ options }: Assumption): OtherAnswer | null {
  const others = options.filter(({ assumed }) => !assumed);
  const [only] = others;
  return others.length === 1 && only?.answer.kind === 'edit'
    ? { label: only.label, edit: only.answer.edit }
    : null;
}

/** What an answer would change, as a sentence. */
export function inWords(label: string, { pathsAdded, pathsRemoved }: ChangeSummary): string {
  if (pathsAdded.length + pathsRemoved.length === 0) return `${label} would leave all paths as they are.`;
  return `${label} would remove ${amount(pathsRemoved.length, 'path')} and add ${pathsAdded.length}.`;
}
