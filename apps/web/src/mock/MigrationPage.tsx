import type { Decision, ResolutionKind, MigrationStep } from '@isomeros/core/migration';
import { readJson, type Json } from '@isomeros/core/model';
import { Button, Input, Radio, Select } from 'antd';
import { useState } from 'react';
import { problemOf, refusalOf } from '../app/api/client.js';
import type { Mock, ProblemBody } from '@isomeros/api';
import { amount } from '../app/parts/amount.js';
import { useMigrateMutation, useReadMigrationQuery } from './recordsApi.js';
import { useRunning } from './useRunning.js';
import { WorkProgress } from './WorkProgress.js';
import { Notice } from '../app/parts/Notice.js';

interface Props {
  readonly mock: Mock;
  /** Back to the exchanges. */
  readonly onClose: () => void;
}

/** What is chosen about a step, and what is typed to fill in. */
interface Choice {
  readonly do: ResolutionKind | null;
  readonly otherwise: Exclude<ResolutionKind, 'convert'> | null;
  readonly value: string;
}

const UNDECIDED: Choice = { do: null, otherwise: null, value: '' };

const NAMES: Readonly<Record<ResolutionKind, string>> = { fill: 'Fill in', convert: 'Convert', drop: 'Drop' };

/** What stands between the records of a mock and the newest model, decided step by step. */
export function MigrationPage({ mock, onClose }: Props): React.JSX.Element {
  const { data: migration = null, error } = useReadMigrationQuery(mock.id, {
    refetchOnMountOrArgChange: true,
  });
  const [migrateRecords] = useMigrateMutation();
  const { work, run } = useRunning();
  const [choices, setChoices] = useState<ReadonlyMap<string, Choice>>(new Map());
  const [refusal, setRefusal] = useState<ProblemBody | null>(null);
  // What was refused says anew what is to be decided.
  const steps = refusal?.steps ?? migration?.steps ?? [];
  const problem = refusal ?? problemOf(error);
  const left = steps.filter(({ id }) => decisionOf(choices.get(id) ?? UNDECIDED) === null).length;
  const migrate = (): void => {
    run(migrateRecords({ mock: mock.id, decisions: decisionsOf(choices) })).then(
      (migrated) => {
        if (migrated !== null) onClose();
      },
      (refused: unknown) => setRefusal(refusalOf(refused)),
    );
  };
  return (
    <section className="panel migration" aria-label="Migration">
      <header className="panel-head">
        <h3>
          Records from revision {migration?.from ?? mock.servesRevision} to {migration?.to ?? 'the newest'}
        </h3>
        <span className="quiet">
          what is only added, widened or renamed goes by itself; this waits for you
        </span>
        <span className="end">
          <button type="button" className="text-button" onClick={onClose}>
            Back to the exchanges
          </button>
        </span>
      </header>
      <div className="panel-body">
        {problem !== null && (
          <Notice>
            {[problem.detail, ...(problem.errors ?? []).map(({ message }) => message)].join(' ')}
          </Notice>
        )}
        <ol className="migration-steps">
          {steps.map((step) => (
            <Step
              key={step.id}
              step={step}
              choice={choices.get(step.id) ?? UNDECIDED}
              onChoose={(choice) => {
                setChoices(new Map([...choices, [step.id, choice]]));
              }}
            />
          ))}
        </ol>
        {migration !== null && steps.length === 0 && (
          <p className="empty-note">Nothing waits: the newest model is served.</p>
        )}
      </div>
      {work !== null && <WorkProgress mock={mock.id} onCancel={work.abort} />}
      {steps.length > 0 && (
        <footer className="acts">
          <span className="quiet">
            {left === 0 ? 'All is decided.' : `${left} of ${steps.length} to decide.`} A snapshot is taken
            first.
          </span>
          <Button type="primary" disabled={left > 0 || work !== null} onClick={migrate}>
            Migrate the records
          </Button>
        </footer>
      )}
    </section>
  );
}

interface StepProps {
  readonly step: MigrationStep;
  readonly choice: Choice;
  readonly onChoose: (choice: Choice) => void;
}

function Step({ step, choice, onChoose }: StepProps): React.JSX.Element {
  const { message, records, first, resolutions } = step;
  const more = records - first.length;
  const others = resolutions.filter((offer) => offer.do !== 'convert');
  return (
    <li>
      <p className="strong">{message}</p>
      <p className="quiet keys">
        {amount(records, 'record')}: {first.join('; ')}
        {more > 0 && `, and ${more} more`}
      </p>
      <div className="choice">
        <Radio.Group
          aria-label={`What is done: ${message}`}
          className="resolutions"
          value={choice.do}
          onChange={(event) => onChoose({ ...choice, do: event.target.value as ResolutionKind })}
          options={resolutions.map((offer) => ({
            value: offer.do,
            label: (
              <>
                <b>{NAMES[offer.do]}</b>: {offer.means}
              </>
            ),
          }))}
        />
        {choice.do === 'convert' && others.length > 0 && (
          <Select<ResolutionKind | ''>
            aria-label={`What cannot be converted: ${message}`}
            value={choice.otherwise ?? ''}
            onChange={(doing) => {
              onChoose({ ...choice, otherwise: doing === '' || doing === 'convert' ? null : doing });
            }}
            style={{ width: 260 }}
            options={[
              { value: '', label: 'what cannot be: ask me again' },
              ...others.map((offer) => ({
                value: offer.do,
                label: `what cannot be: ${NAMES[offer.do].toLowerCase()}`,
              })),
            ]}
          />
        )}
        {(choice.do === 'fill' || (choice.do === 'convert' && choice.otherwise === 'fill')) && (
          <Input
            aria-label={`Value for: ${message}`}
            className="mono"
            placeholder="a value, as JSON or plain text"
            value={choice.value}
            onChange={({ target }) => {
              onChoose({ ...choice, value: target.value });
            }}
          />
        )}
      </div>
    </li>
  );
}

/** JSON where it is some, else the text as it stands. */
function valueOf(typed: string): Json {
  const read = readJson(typed);
  return read.ok ? read.value : typed;
}

function decisionOf({ do: doing, otherwise, value }: Choice): Decision | null {
  if (doing === null) return null;
  if (doing !== 'convert') return simpleDecision(doing, value);
  if (otherwise === null) return { do: 'convert' };
  const then = simpleDecision(otherwise, value);
  return then === null ? null : { do: 'convert', otherwise: then };
}

function simpleDecision(
  doing: Exclude<ResolutionKind, 'convert'>,
  value: string,
): Exclude<Decision, { do: 'convert' }> | null {
  if (doing === 'drop') return { do: 'drop' };
  return value.trim() === '' ? null : { do: 'fill', value: valueOf(value.trim()) };
}

function decisionsOf(choices: ReadonlyMap<string, Choice>): Readonly<Record<string, Decision>> {
  return Object.fromEntries(
    [...choices].flatMap(([id, choice]) => {
      const decision = decisionOf(choice);
      return decision === null ? [] : [[id, decision] as const];
    }),
  );
}
