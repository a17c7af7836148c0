import {
  indexContract,
  type Contract,
  type Effect,
  type Operation,
  type Segment,
} from '@isomeros/core/contract';
import type { StatementPlace } from '@isomeros/core/notation';
import { useState } from 'react';
import { ExplainedAction, ExplainedWords } from '../app/help/Explained.js';
import { EffectMark } from '../app/parts/EffectMark.js';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import type { ExampleExchange } from '../design/derivation/protocol.js';
import { useExample } from '../design/useExample.js';
import { AnswerList } from './AnswerList.js';
import { Callers } from './Callers.js';
import { ExamplePanel } from './ExamplePanel.js';
import { HeaderList } from './HeaderList.js';
import { InOutTable, type SelectedReasons } from './InOutTable.js';
import { OperationLinks } from './OperationLinks.js';
import { OperationTexts } from './OperationTexts.js';

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
  readonly onOperation: (operation: string) => void;
  readonly onOpenInMock: (message: string) => void;
}

/** One operation in full: what is said of it, what goes in and out, every answer and when, an example, the reasons. */
export function OperationPage({
  contract,
  operation,
  places,
  text,
  onStatement,
  onOperation,
  onOpenInMock,
}: Props): React.JSX.Element {
  const resource = indexContract(contract).resources.get(operation.resource);
  const whole: SelectedReasons = {
    title: operation.id,
    reasons: [...operation.reasons, ...(resource?.reasons ?? []).slice(1)],
  };
  const [asked, setAsked] = useState<SelectedReasons>(whole);
  const example = useExample(contract, operation.id);
  const parts = { contract, operation, asked, onAsk: setAsked };
  return (
    <article className="operation-page">
      <header className="operation-head">
        <div className="title">
          <h2>{operation.id}</h2>
          <ExplainedWords by="arrange.effect">
            <EffectMark effect={operation.effect} /> {EFFECT_WORDS[operation.effect]}
          </ExplainedWords>
          <ExplainedAction by="contract.why" onPress={() => setAsked(whole)}>
            Why it is there
          </ExplainedAction>
        </div>
        <RequestLine contract={contract} operation={operation} example={example} />
        <OperationTexts contract={contract} operation={operation} onOperation={onOperation} />
      </header>
      <div className="operation-columns">
        <div>
          <InOutTable {...parts} />
          <AnswerList {...parts} />
          <HeaderList contract={contract} operation={operation} />
          <OperationLinks contract={contract} operation={operation} asked={asked.title} onAsk={setAsked} />
          <Callers contract={contract} operation={operation} />
        </div>
        <div className="right">
          <ExamplePanel
            contract={contract}
            operation={operation}
            example={example}
            onOpenInMock={onOpenInMock}
          />
          <section className="why" aria-label="Why">
            <header className="panel-head">
              <h3>Why {asked.title}</h3>
            </header>
            <div className="panel-body" tabIndex={0} role="group" aria-label="Reasons">
              <ReasonTrail reasons={asked.reasons} places={places} text={text} onStatement={onStatement} />
            </div>
          </section>
        </div>
      </div>
    </article>
  );
}

interface RequestLineProps {
  readonly contract: Contract;
  readonly operation: Operation;
  readonly example: ExampleExchange | null | 'running';
}

/** Where it is sent, as a URI template (RFC 6570), and as that reads once it is expanded. */
function RequestLine({ contract, operation, example }: RequestLineProps): React.JSX.Element {
  const segments = indexContract(contract).resources.get(operation.resource)?.segments ?? [];
  const query = operation.query.map(({ name }) => encodeURIComponent(name));
  const expanded =
    example === null || example === 'running' ? null : (example.requestHead[0] ?? '').split(' ')[1];
  return (
    <div className="request-line">
      <span className="method">{operation.method}</span>
      {contract.root}
      {segments.map((segment, index) => (
        <PathPart key={index} segment={segment} />
      ))}
      {query.length > 0 && <span className="quiet">{`{?${query.join(',')}}`}</span>}
      {expanded !== null && segments.some(({ kind }) => kind === 'id') && (
        <span className="quiet expanded">{expanded}</span>
      )}
    </div>
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
