import { useEffect, useState } from 'react';
import { EffectMark } from '../app/parts/EffectMark.js';
import { indentJson } from '../app/parts/json.js';
import { WhyPanel } from '../app/parts/WhyPanel.js';
import { useAppSelector } from '../app/store.js';
import { derivationClient } from '../design/derivationClient.js';
import type { ExampleExchange } from '../design/workerMessages.js';
import type { OutlineRow } from '../app/parts/outlineRows.js';

interface Props {
  readonly row: OutlineRow | undefined;
  readonly root: string;
  readonly onStatement: (line: number) => void;
}

/** Why the chosen path is there, and an exchange with it that changes as the settings do. */
export function PathPanel({ row, root, onStatement }: Props): React.JSX.Element {
  const [chosen, setChosen] = useState<string | null>(null);
  if (row === undefined) return <section className="panel" />;
  const operation = row.operations.find(({ id }) => id === chosen) ?? row.operations[0];
  return (
    <WhyPanel label="The chosen path" row={row} root={root} onStatement={onStatement}>
      <header className="panel-head">
        <h3>Example</h3>
        <span className="quiet">answered from the seed</span>
        <span className="end">
          {row.operations.map(({ id, verb, effect }) => (
            <button
              key={id}
              type="button"
              className={id === operation?.id ? 'text-button strong' : 'text-button'}
              aria-pressed={id === operation?.id}
              title={id}
              onClick={() => setChosen(id)}
            >
              <EffectMark effect={effect} /> {verb}
            </button>
          ))}
        </span>
      </header>
      {operation !== undefined && <LiveExample operation={operation.id} />}
    </WhyPanel>
  );
}

/** Run by the engine in the worker, again whenever the contract changes. */
function LiveExample({ operation }: { readonly operation: string }): React.JSX.Element {
  const outline = useAppSelector((state) => state.design.outline);
  const [example, setExample] = useState<ExampleExchange | null>(null);
  useEffect(() => {
    let isWanted = true;
    void derivationClient.example(operation).then((answer) => {
      if (isWanted) setExample(answer);
    });
    return () => {
      isWanted = false;
    };
  }, [operation, outline]);
  if (example === null) return <p className="empty-note">No record to show it with.</p>;
  const body = (json: string | null): string => (json === null ? '' : `\n\n${indentJson(json)}`);
  return (
    <pre className="live-example" aria-label="Example exchange">
      {example.requestHead.join('\n') + body(example.requestBody)}
      {'\n\n'}
      {[example.statusLine, ...example.responseHead].join('\n') + body(example.responseBody)}
    </pre>
  );
}
