import { CHOOSABLE_NAMES, hasLevel, type ChoosableSetting } from '@isomeros/core/arrangement';
import type { Verb } from '@isomeros/core/contract';
import { useEffect, useState } from 'react';
import { EffectMark } from '../app/parts/EffectMark.js';
import { indentJson } from '../app/parts/json.js';
import type { OutlineRow } from '../app/parts/outlineRows.js';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import { useAppSelector } from '../app/store.js';
import { derivationClient } from '../design/derivationClient.js';
import type { ExampleExchange } from '../design/workerMessages.js';
import { ExposureGrid } from './ExposureGrid.js';
import { FindingsHere } from './FindingsHere.js';
import { SettingRows } from './SettingRows.js';
import { WordRow } from './WordRow.js';

interface Props {
  readonly row: OutlineRow | undefined;
  readonly root: string;
  /** Whether the reasons are shown; stays from path to path. */
  readonly asksWhy: boolean;
  readonly onAskWhy: (asks: boolean) => void;
  readonly onStatement: (line: number) => void;
}

const NOWHERE = {};

/** The chosen path: what is set just for it, why it is there, and an exchange that changes as the settings do. */
export function PathPanel({ row, root, asksWhy, onAskWhy, onStatement }: Props): React.JSX.Element {
  const places = useAppSelector((state) => state.design.derived?.places ?? NOWHERE);
  const text = useAppSelector((state) => state.design.text);
  const [chosen, setChosen] = useState<string | null>(null);
  if (row === undefined) return <section className="panel" />;
  const operation = row.operations.find(({ id }) => id === chosen);
  const shown = operation ?? row.operations[0];
  const level = operation === undefined ? 'resource' : 'operation';
  return (
    <section className="panel path-panel" aria-label="The chosen path">
      <header className="panel-head">
        <code className="strong">{root + row.resource.path}</code>
        <span className="end">
          <button
            type="button"
            className="text-button"
            aria-expanded={asksWhy}
            onClick={() => onAskWhy(!asksWhy)}
          >
            Why
          </button>
        </span>
      </header>
      <div className="panel-body">
        <div className="scope" role="group" aria-label="What is looked at">
          <button
            type="button"
            className={operation === undefined ? 'text-button strong' : 'text-button'}
            aria-pressed={operation === undefined}
            onClick={() => setChosen(null)}
          >
            all of it
          </button>
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
        </div>
        {asksWhy && (
          <ReasonTrail reasons={row.resource.reasons} places={places} text={text} onStatement={onStatement} />
        )}
        <FindingsHere row={row} onStatement={onStatement} />
        {operation === undefined && row.resource.entity !== null && showsRecords(row) && (
          <>
            <h3 className="section-head">
              Goes in and out
              <span className="end quiet">of every {row.resource.entity}</span>
            </h3>
            <ExposureGrid entity={row.resource.entity} onStatement={onStatement} />
          </>
        )}
        <h3 className="section-head">
          Set here
          <span className="end quiet">
            {operation === undefined ? 'for every operation of the path' : `for ${operation.id} alone`}
          </span>
        </h3>
        {operation === undefined && row.resource.word !== null && (
          <WordRow subject={row.resource.word} path={row.resource.path} />
        )}
        <SettingRows
          level={level}
          resource={row.resource.id}
          {...(operation === undefined ? {} : { verb: operation.verb })}
          names={settingsOf(row, level)}
        />
        <h3 className="section-head">
          Example
          <span className="end quiet">answered from the seed</span>
        </h3>
        {shown !== undefined && <LiveExample operation={shown.id} />}
      </div>
    </section>
  );
}

/** The settings that mean something for a path. */
function settingsOf(
  { operations }: OutlineRow,
  level: 'resource' | 'operation',
): readonly ChoosableSetting[] {
  const verbs = operations.map(({ verb }) => verb);
  const isList = verbs.includes('list');
  const isMeant: Readonly<Partial<Record<ChoosableSetting, boolean>>> = {
    pageSize: isList,
    maxPageSize: isList,
    filterStyle: isList,
    sortStyle: isList,
    createAnswers: verbs.includes('create'),
    removeAnswers: verbs.includes('remove'),
    invalidStatus: verbs.some((verb) => TAKES_BODY.has(verb)),
  };
  return CHOOSABLE_NAMES.filter((name) => hasLevel(name, level) && (isMeant[name] ?? true));
}

const showsRecords = ({ resource: { kind } }: OutlineRow): boolean =>
  kind === 'collection' || kind === 'item' || kind === 'singleton';

const TAKES_BODY: ReadonlySet<Verb> = new Set(['create', 'replace', 'change', 'attach']);

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
