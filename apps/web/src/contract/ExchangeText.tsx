import { indentJson } from '../app/parts/json.js';
import type { ExampleExchange } from '../design/derivation/protocol.js';

/** A request and its answer as they travel. */
export function ExchangeText({ exchange }: { readonly exchange: ExampleExchange }): React.JSX.Element {
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
