import {
  indexContract,
  PROTOCOL_ANSWERS,
  type Contract,
  type Effect,
  type Operation,
  type Reasons,
  type ResponseCase,
  type Segment,
} from '@isomeros/core/contract';
import type { StatementPlace } from '@isomeros/core/notation';
import { useState } from 'react';
import { ExplainedAction, ExplainedWords } from '../app/help/Explained.js';
import { EffectMark } from '../app/parts/EffectMark.js';
import { indentJson } from '../app/parts/json.js';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import { useExample } from '../design/useExample.js';
import type { ExampleExchange } from '../design/derivation/protocol.js';
import { OperationTexts } from './OperationTexts.js';
import { OperationLinks } from './OperationLinks.js';
import { envelopeText, inOutRows, type InOutRow } from './inOut.js';

const EFFECT_WORDS: Readonly<Record<Effect, string>> = {
  safe: 'safe',
  idempotent: 'idempotent, not safe',
  neither: 'neither safe nor idempotent',
};

interface Props {
  readonly contract: Contract;
  readonly operation: Operation;
  readonly places: Readonly<Record<string, StatementPlace>>;
  readonly text: string;
  readonly onStatement: (line: number) => void;
  readonly onOpenInMock: (message: string) => void;
}

/** What is asked why at the moment. */
interface Asked {
  readonly title: string;
  readonly reasons: Reasons;
}

/** One operation in full: what goes in and out, every answer and when, an example, the reasons. */
export function OperationPage({
  contract,
  operation,
  places,
  text,
  onStatement,
  onOpenInMock,
}: Props): React.JSX.Element {
  const resource = indexContract(contract).resources.get(operation.resource);
  const whole: Asked = {
    title: operation.id,
    reasons: [...operation.reasons, ...(resource?.reasons ?? []).slice(1)],
  };
  const [asked, setAsked] = useState<Asked>(whole);
  const example = useExample(contract, operation.id);
  return (
    <article className="operation-page">
      <header className="operation-head">
        <div className="title">
          <h2>{operation.id}</h2>
          <ExplainedWords by="arrange.effect">
            <EffectMark effect={operation.effect} /> {EFFECT_WORDS[operation.effect]}
          </ExplainedWords>
          <ExplainedAction
            by="contract.why"
            onPress={() => {
              setAsked(whole);
            }}
          >
            Why it is there
          </ExplainedAction>
        </div>
        <OperationTexts operation={operation} />
        <div className="request-line">
          <span className="method">{operation.method}</span>
          {contract.root}
          {(resource?.segments ?? []).map((segment, index) => (
            <PathPart key={index} segment={segment} />
          ))}
        </div>
      </header>
      <div className="operation-columns">
        <div>
          <InOutTable
            rows={inOutRows(contract, operation)}
            around={envelopeText(contract, operation)}
            asked={asked}
            onAsk={setAsked}
          />
          <header className="panel-head">
            <h3>Answers</h3>
            <span className="quiet">every one, and when</span>
          </header>
          <AnswerList responses={operation.responses} asked={asked} onAsk={setAsked} />
          <OperationLinks contract={contract} operation={operation} asked={asked.title} onAsk={setAsked} />
        </div>
        <div className="right">
          <ExamplePanel example={example} onOpenInMock={onOpenInMock} />
          <section className="why" aria-label="Why">
            <header className="panel-head">
              <h3>Why {asked.title}</h3>
            </header>
            <div className="panel-body">
              <ReasonTrail reasons={asked.reasons} places={places} text={text} onStatement={onStatement} />
            </div>
          </section>
        </div>
      </div>
    </article>
  );
}

interface AnswersProps {
  readonly responses: readonly ResponseCase[];
  readonly asked: Asked;
  readonly onAsk: (asked: Asked) => void;
}

/** The answers of an operation; what every operation has stands under one line until it is unfolded. */
function AnswerList({ responses, asked, onAsk }: AnswersProps): React.JSX.Element {
  const [isUnfolded, setUnfolded] = useState(false);
  const common = responses.filter(({ code }) => PROTOCOL_ANSWERS.has(code));
  const shown = isUnfolded ? responses : responses.filter(({ code }) => !PROTOCOL_ANSWERS.has(code));
  const statuses = [...new Set(common.map(({ status }) => status))].join(', ');
  return (
    <ul className="answers">
      {shown.map((response, index) => {
        const { status, code, when, reasons } = response;
        const title = `${status} ${code}`;
        return (
          <li
            key={code}
            className={asked.title === title ? 'chosen' : ''}
            onClick={() => {
              onAsk({ title, reasons });
            }}
          >
            <span className="status">{shown[index - 1]?.status === status ? '' : status}</span>
            <button type="button" className="plain-button" aria-label={`Why ${status}: ${when}`}>
              {when}
            </button>
          </li>
        );
      })}
      {common.length > 0 && (
        <li className="common">
          <button
            type="button"
            className="text-button"
            aria-expanded={isUnfolded}
            onClick={() => {
              setUnfolded(!isUnfolded);
            }}
          >
            {isUnfolded ? 'Fold what every operation may answer' : `${statuses}, as everywhere`}
          </button>
        </li>
      )}
    </ul>
  );
}

function PathPart({ segment }: { readonly segment: Segment }): React.JSX.Element {
  if (segment.kind === 'literal') return <>/{segment.text}</>;
  return (
    <>
      /<span className="parameter">{`{${segment.parameter}}`}</span>
    </>
  );
}

interface TableProps {
  readonly rows: readonly InOutRow[];
  /** Where one record stands in bodies; `null` where it is the body. */
  readonly around: string | null;
  readonly asked: Asked;
  readonly onAsk: (asked: Asked) => void;
}

const IN_OUT_COLUMNS = ['name', 'type', 'in', 'out'] as const;

const shownName = ({ place, name }: InOutRow): string => (place === 'query' ? `?${name}=` : name);

function InOutTable({ rows, around, asked, onAsk }: TableProps): React.JSX.Element {
  return (
    <>
      <header className="panel-head">
        <h3>What goes in, what comes out</h3>
        {around !== null && <span className="quiet">{around}</span>}
      </header>
      <table className="in-out">
        <thead>
          <tr>
            {IN_OUT_COLUMNS.map((column) => (
              <th key={column}>
                <ExplainedWords by={`contract.${column}`}>{column}</ExplainedWords>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr
              key={`${row.place} ${row.name}`}
              className={asked.title === row.name ? 'chosen' : ''}
              onClick={() => {
                onAsk({ title: row.name, reasons: row.reasons });
              }}
            >
              <td className="name">
                <button type="button" className="plain-button" aria-label={`Why ${shownName(row)}`}>
                  {shownName(row)}
                </button>
              </td>
              <td>{row.type}</td>
              <td className={row.in}>{row.in}</td>
              <td className={row.out ? '' : 'no'}>{row.out ? 'yes' : 'no'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

interface ExampleProps {
  readonly example: ExampleExchange | null | 'running';
  readonly onOpenInMock: (message: string) => void;
}

function ExamplePanel({ example, onOpenInMock }: ExampleProps): React.JSX.Element {
  return (
    <section aria-label="Example">
      <header className="panel-head">
        <h3>Example</h3>
        <span className="quiet">not sent: run by the engine on seed 42</span>
        {example !== null && example !== 'running' && (
          <span className="end">
            <ExplainedAction
              by="contract.open"
              onPress={() => {
                onOpenInMock(messageOf(example));
              }}
            >
              Open in Mock
            </ExplainedAction>
          </span>
        )}
      </header>
      <div className="panel-body" tabIndex={0} role="group" aria-label="Request and response">
        {example === null && <p className="empty-note">The seed data has no record to show this on.</p>}
        {example !== null && example !== 'running' && (
          <>
            <pre className="message">
              <span className="first-line">{example.requestHead[0]}</span>
              {`\n${example.requestHead.slice(1).join('\n')}`}
              {example.requestBody === null ? '' : `\n\n${indentJson(example.requestBody)}`}
            </pre>
            <pre className="message">
              <span className="first-line">{example.statusLine}</span>
              {`\n${example.responseHead.join('\n')}`}
              {example.responseBody === null ? '' : `\n\n${indentJson(example.responseBody)}`}
            </pre>
          </>
        )}
      </div>
    </section>
  );
}

const messageOf = ({ requestHead, requestBody }: ExampleExchange): string =>
  `${requestHead.join('\n')}\n\n${requestBody === null ? '' : indentJson(requestBody)}`;
