import type { IntakeQuestion } from '@isomeros/core/intake';
import { Button, Input, Space } from 'antd';
import type { ChosenAnswers } from './protocol.js';
import { amount } from '../app/parts/amount.js';

interface Props {
  readonly questions: readonly IntakeQuestion[];
  readonly chosen: ChosenAnswers;
  readonly onChoose: (question: number, option: number) => void;
  readonly onRecord: (record: string) => void;
  readonly onLine: (line: number) => void;
}

/** What the source leaves open: an answer changes the lines above at once. */
export function IntakeQuestions(props: Props): React.JSX.Element {
  const { questions, chosen, onChoose, onRecord, onLine } = props;
  return (
    <section className="panel" aria-label="Assumed">
      <header className="panel-head">
        <h2>Assumed</h2>
        <span className="quiet">
          {questions.length === 0
            ? 'nothing'
            : `${amount(questions.length, 'question')}; an answer changes the lines above at once`}
        </span>
      </header>
      <ol className="panel-body asked-list">
        {questions.map(({ line, question, ground, options, record }, index) => (
          <li key={index}>
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
            <Space.Compact>
              {options.map((option, at) => {
                const taken = chosen[index] === undefined ? option.assumed : chosen[index] === at;
                return (
                  <Button
                    key={option.label}
                    className={taken ? 'assumed' : ''}
                    aria-pressed={taken}
                    onClick={() => onChoose(index, at)}
                  >
                    {option.label}
                    {option.assumed && ', assumed'}
                  </Button>
                );
              })}
            </Space.Compact>
          </li>
        ))}
      </ol>
    </section>
  );
}
