import type { ExampleExchange } from '../design/derivation/protocol.js';
import { ExplainedAction } from '../app/help/Explained.js';
import { indentJson } from '../app/parts/json.js';

interface Props {
  readonly example: ExampleExchange | null | 'running';
  readonly onOpenInMock: (message: string) => void;
}

/** An exchange as it travels. */
export function ExamplePanel({ example, onOpenInMock }: Props): React.JSX.Element {
  return (
    <section aria-label="Example">
      <header className="panel-head">
        <h3>Example</h3>
        <span className="quiet">run by the engine on seed 42</span>
        {example !== null && example !== 'running' && (
          <span className="end">
            <ExplainedAction by="contract.open" onPress={() => onOpenInMock(messageOf(example))}>
              Open in Mock
            </ExplainedAction>
          </span>
        )}
      </header>
      <div className="panel-body" tabIndex={0} role="group" aria-label="Request and response">
        {example === null && <p className="empty-note">The seed data has no record to show this on.</p>}
        {example !== null && example !== 'running' && <Exchange exchange={example} />}
      </div>
    </section>
  );
}

function Exchange({ exchange }: { readonly exchange: ExampleExchange }): React.JSX.Element {
  const { requestHead, requestBody, statusLine, responseHead, responseBody } = exchange;
  return (
    <>
      <pre className="message">
        <span className="first-line">{requestHead[0]}</span>
        {`\n${requestHead.slice(1).join('\n')}`}
        {requestBody === null ? '' : `\n\n${indentJson(requestBody)}`}
      </pre>
      <pre className="message">
        <span className="first-line">{statusLine}</span>
        {`\n${responseHead.join('\n')}`}
        {responseBody === null ? '' : `\n\n${indentJson(responseBody)}`}
      </pre>
    </>
  );
}

const messageOf = ({ requestHead, requestBody }: ExampleExchange): string =>
  `${requestHead.join('\n')}\n\n${requestBody === null ? '' : indentJson(requestBody)}`;
