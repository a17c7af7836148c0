import type { Assumed, IntakeQuestion } from '@isomeros/core/intake';
import { Button, Input, Space } from 'antd';
import { useState } from 'react';
import type { ChosenAnswers } from './protocol.js';
import { amount } from '../app/parts/amount.js';
import { groupsOf, holdsAll, type RowGroup } from './reportGroups.js';

interface Props {
  readonly questions: readonly IntakeQuestion[];
  /** What has one answer. */
  readonly told: readonly Assumed[];
  /** What was typed to narrow the report. */
  readonly typed: string;
  readonly chosen: ChosenAnswers;
  /** Answers several questions at once, each with the same option. */
  readonly onChoose: (questions: readonly number[], option: number) => void;
  readonly onRecord: (record: string) => void;
  readonly onLine: (line: number) => void;
}

interface Numbered extends IntakeQuestion {
  /** Its place among all, from 0. */
  readonly index: number;
}

/** Fewer questions of a kind stand by themselves. */
const SEVERAL = 4;

/** What the source leaves open: an answer changes the lines above at once. Many of a kind are answered together. */
export function IntakeQuestions(props: Props): React.JSX.Element {
  const { questions, told, typed } = props;
  const numbered = questions
    .map((question, index): Numbered => ({ ...question, index }))
    .filter(({ question, ground }) => holdsAll(typed, [question, ground]));
  const kinds = groupsOf(numbered, ({ options, record, index }) =>
    record === null ? options.map(({ label }) => label).join('\n') : String(index),
  );
  const others = told.filter(({ assumption, ground }) => holdsAll(typed, [assumption, ground]));
  return (
    <section className="panel" aria-label="Assumed">
      <header className="panel-head">
        <h2>Assumed</h2>
        <span className="quiet">
          {questions.length === 0
            ? 'nothing is asked'
            : `${amount(questions.length, 'question')}; an answer changes the lines above at once`}
          {told.length > 0 && `; ${told.length} with one answer`}
        </span>
      </header>
      <ol className="panel-body asked-list">
        {inOrder(kinds).map(([first, ...more]) =>
          more.length === 0 ? (
            <Question key={first.index} question={first} {...props} />
          ) : (
            <Kind key={first.index} kind={[first, ...more]} {...props} />
          ),
        )}
        {groupsOf(others, ({ ground }) => ground).map((kind) => (
          <Told key={kind.name} kind={kind} onLine={props.onLine} />
        ))}
      </ol>
    </section>
  );
}

type Together = readonly [Numbered, ...Numbered[]];

/** What is answered together, in the order of the source: several of a kind, and all others by themselves. */
const inOrder = (kinds: readonly RowGroup<Numbered>[]): readonly Together[] =>
  kinds
    .flatMap(({ rows }): Together[] => {
      const [first, ...more] = rows;
      if (first === undefined) return [];
      return rows.length < SEVERAL ? rows.map((one): Together => [one]) : [[first, ...more]];
    })
    .sort(([one], [other]) => one.index - other.index);

/** Questions of one kind, answered together or one by one. */
function Kind({ kind, ...props }: Props & { readonly kind: Together }): React.JSX.Element {
  const [isOpen, setOpen] = useState(false);
  const { chosen, onChoose } = props;
  const [first] = kind;
  const all = kind.map(({ index }) => index);
  const { options } = first;
  return (
    <>
      <li>
        <div className="asked">
          <FoldButton isOpen={isOpen} onToggle={() => setOpen(!isOpen)}>
            {kind.length} such as: {first.question}
          </FoldButton>
          <div className="quiet">{first.ground}</div>
        </div>
        <Answers
          options={options}
          isTaken={(at) => kind.every((one) => isTaken(one, chosen, at))}
          label={(option) => `all: ${option}`}
          onChoose={(at) => onChoose(all, at)}
        />
      </li>
      {isOpen && kind.map((question) => <Question key={question.index} question={question} {...props} />)}
    </>
  );
}

const isTaken = ({ index, options }: Numbered, chosen: ChosenAnswers, at: number): boolean =>
  chosen[index] === undefined ? options[at]?.assumed === true : chosen[index] === at;

function Question({
  question: one,
  chosen,
  onChoose,
  onRecord,
  onLine,
}: Pick<Props, 'chosen' | 'onChoose' | 'onRecord' | 'onLine'> & {
  readonly question: Numbered;
}): React.JSX.Element {
  const { index, line, question, ground, options, record } = one;
  return (
    <li>
      <span className="asked-mark">{index + 1}</span>
      <div className="asked">
        <button type="button" className="plain-button strong" onClick={() => onLine(line)}>
          {question}
        </button>
        <div className="quiet">
          Line {line}. {ground}
        </div>
      </div>
      {record !== null && (
        <Input
          key={record}
          aria-label={question}
          className="mono"
          style={{ width: 170 }}
          defaultValue={record}
          onPressEnter={({ currentTarget }) => onRecord(currentTarget.value)}
          onBlur={({ target }) => {
            if (target.value !== record) onRecord(target.value);
          }}
        />
      )}
      <Answers
        options={options}
        isTaken={(at) => isTaken(one, chosen, at)}
        label={(option) => option}
        onChoose={(at) => onChoose([index], at)}
      />
    </li>
  );
}

interface AnswersProps {
  readonly options: IntakeQuestion['options'];
  readonly isTaken: (option: number) => boolean;
  readonly label: (option: string) => string;
  readonly onChoose: (option: number) => void;
}

function Answers({ options, isTaken: taken, label, onChoose }: AnswersProps): React.JSX.Element {
  return (
    <Space.Compact>
      {options.map((option, at) => (
        <Button
          key={option.label}
          className={taken(at) ? 'assumed' : ''}
          aria-pressed={taken(at)}
          onClick={() => onChoose(at)}
        >
          {label(option.label)}
          {option.assumed && ', assumed'}
        </Button>
      ))}
    </Space.Compact>
  );
}

interface FoldProps {
  readonly isOpen: boolean;
  readonly onToggle: () => void;
  readonly children: React.ReactNode;
}

/** Unfolds what belongs to a line, and folds it. */
function FoldButton({ isOpen, onToggle, children }: FoldProps): React.JSX.Element {
  return (
    <button type="button" className="plain-button strong" aria-expanded={isOpen} onClick={onToggle}>
      <span aria-hidden className="fold">
        {isOpen ? '▾' : '▸'}
      </span>
      {children}
    </button>
  );
}

/** What was taken to be so where there is one answer. */
function Told({
  kind: { name, rows },
  onLine,
}: {
  readonly kind: RowGroup<Assumed>;
  readonly onLine: (line: number) => void;
}): React.JSX.Element {
  const [isOpen, setOpen] = useState(rows.length < SEVERAL);
  const [first, more] = rows;
  if (first !== undefined && more === undefined)
    return (
      <li className="told">
        <div className="asked">
          <button type="button" className="plain-button strong" onClick={() => onLine(first.line)}>
            {first.assumption}
          </button>
          <div className="quiet">
            Line {first.line}. {name}
          </div>
        </div>
      </li>
    );
  return (
    <li className="told">
      <div className="asked">
        <FoldButton isOpen={isOpen} onToggle={() => setOpen(!isOpen)}>
          {rows.length} such as: {first?.assumption}
        </FoldButton>
        <div className="quiet">{name}</div>
        {isOpen &&
          rows.map(({ line, assumption }) => (
            <button
              key={`${line} ${assumption}`}
              type="button"
              className="plain-button"
              onClick={() => onLine(line)}
            >
              <span className="quiet">line {line}</span> {assumption}
            </button>
          ))}
      </div>
    </li>
  );
}
