import { LONGEST_EXAMPLE_NAME, type NamedExample } from '@isomeros/core/arrangement';
import type { Contract, Operation } from '@isomeros/core/contract';
import { useState } from 'react';
import { ExplainedAction } from '../app/help/Explained.js';
import { indentJson } from '../app/parts/json.js';
import { NameField } from '../app/parts/NameField.js';
import type { ExampleExchange, NamedExchange } from '../design/derivation/protocol.js';
import { ExampleBody } from './ExampleBody.js';
import { ExchangeText } from './ExchangeText.js';
import { useNamedExamples, type NamedExamples } from './useNamedExamples.js';

interface Props {
  readonly contract: Contract;
  readonly operation: Operation;
  /** The one that is derived. */
  readonly example: ExampleExchange | null | 'running';
  readonly onOpenInMock: (message: string) => void;
}

/** Exchanges as they travel: the one that is derived, and those that were given names. */
export function ExamplePanel({ contract, operation, example, onOpenInMock }: Props): React.JSX.Element {
  const examples = useNamedExamples(contract, operation);
  const { current, ran, wrong } = examples;
  const [written, setWritten] = useState<string | null>(null);
  const shown = current === null ? example : (ran?.exchange ?? null);
  return (
    <section aria-label="Example">
      <header className="panel-head">
        <h3>Example</h3>
        <span className="quiet">
          {current === null ? 'run by the engine on seed 42' : 'run on the records it holds'}
        </span>
        {shown !== null && shown !== 'running' && (
          <span className="end">
            <ExplainedAction by="contract.open" onPress={() => onOpenInMock(messageOf(shown))}>
              Open in Mock
            </ExplainedAction>
          </span>
        )}
      </header>
      <ExampleNames examples={examples} onWrite={() => setWritten(current?.id ?? null)} />
      {wrong !== null && (
        <p className="wrong aside" role="alert">
          {wrong}
        </p>
      )}
      <div className="panel-body" tabIndex={0} role="group" aria-label="Request and response">
        {current !== null && written === current.id ? (
          <ExampleBody
            example={current}
            onTake={(next) => {
              setWritten(null);
              void examples.write(next);
            }}
            onLeave={() => setWritten(null)}
          />
        ) : (
          <Shown shown={shown} ran={ran} current={current} />
        )}
      </div>
    </section>
  );
}

interface NamesProps {
  readonly examples: NamedExamples;
  readonly onWrite: () => void;
}

/** The examples by their names, and what can be done with the one that is shown. */
function ExampleNames({
  examples: { named, current, choose, keep, remove },
  onWrite,
}: NamesProps): React.JSX.Element {
  const [isNamed, setNamed] = useState(false);
  return (
    <div className="example-names" role="group" aria-label="Examples">
      {[null, ...named].map((one) => (
        <button
          key={one?.id ?? ''}
          type="button"
          className="plain-button"
          aria-pressed={(one?.id ?? null) === (current?.id ?? null)}
          onClick={() => choose(one?.id ?? null)}
        >
          {one === null ? 'derived' : `${one.name} ${one.status}`}
        </button>
      ))}
      <span className="end">
        {isNamed ? (
          <NameField
            name={current?.name ?? `example ${named.length + 1}`}
            label="Name of the example"
            isProposed={current === null}
            most={LONGEST_EXAMPLE_NAME}
            onName={keep}
            onLeave={() => setNamed(false)}
          />
        ) : (
          <ExplainedAction by="contract.keep" onPress={() => setNamed(true)}>
            {current === null ? 'Keep it' : 'Rename'}
          </ExplainedAction>
        )}
        {current !== null && (
          <>
            <button type="button" className="text-button" onClick={onWrite}>
              Write it
            </button>
            <button type="button" className="text-button" onClick={remove}>
              Remove it
            </button>
          </>
        )}
      </span>
    </div>
  );
}

interface ShownProps {
  readonly shown: ExampleExchange | null | 'running';
  readonly ran: NamedExchange | null;
  readonly current: NamedExample | null;
}

function Shown({ shown, ran, current }: ShownProps): React.JSX.Element {
  const isOther = current !== null && ran?.status != null && ran.status !== current.status;
  return (
    <>
      {current === null && shown === null && (
        <p className="empty-note">The seed data has no record to show this on.</p>
      )}
      {current !== null && ran?.why != null && <p className="wrong">It cannot be sent: {ran.why}.</p>}
      {isOther && (
        <p className="wrong">
          It was answered {current.status} when it was kept, and is answered {ran.status} now.
        </p>
      )}
      {shown !== null && shown !== 'running' && <ExchangeText exchange={shown} />}
    </>
  );
}

const messageOf = ({ requestHead, requestBody }: ExampleExchange): string =>
  `${requestHead.join('\n')}\n\n${requestBody === null ? '' : indentJson(requestBody)}`;
