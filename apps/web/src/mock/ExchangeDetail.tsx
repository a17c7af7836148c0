import type { RecordChange, RecordImage, StepName } from '@isomeros/core/engine';
import type { Exchange } from '@isomeros/api';
import { useState } from 'react';
import { refusalText } from '../app/api/client.js';
import { usePinExchangeMutation } from './mocksApi.js';
import type { Contract } from '@isomeros/core/contract';
import { EntityLine, WhyOperation } from './WhyOperation.js';
import { KeepExchange } from './KeepExchange.js';
import { MatchNarrowing } from './MatchNarrowing.js';
import { RemovalTree } from './RemovalTree.js';
import { amount } from '../app/parts/amount.js';

const STEP_WORDS: Readonly<Record<StepName, string>> = {
  target: 'Target',
  match: 'Match',
  authenticate: 'Who',
  locate: 'Locate',
  authorise: 'May they',
  negotiate: 'Negotiate',
  query: 'Query',
  conditions: 'Conditions',
  body: 'Body',
  store: 'Store rules',
  apply: 'Apply',
  represent: 'Represent',
  answer: 'Answer',
};

interface Props {
  /** The id of the mock. */
  readonly mock: string;
  /** That of the endpoint that is looked at; `null` while it is read. */
  readonly contract: Contract | null;
  readonly exchange: Exchange | null;
}

/** How one exchange was handled, step by step, and the records it touched. */
export function ExchangeDetail({ mock, contract, exchange }: Props): React.JSX.Element {
  if (exchange === null) {
    return (
      <section className="panel" aria-label="What happened">
        <header className="panel-head">
          <h2>What happened</h2>
        </header>
        <p className="empty-note">
          Choose an exchange to see which operation handled it, step by step, and what changed in the records.
        </p>
      </section>
    );
  }
  return (
    <section className="panel" aria-label="What happened">
      <header className="panel-head">
        <h2>What happened in {exchange.number}</h2>
        <span>{exchange.operation ?? 'no operation'}</span>
        <span className="end quiet">{exchange.milliseconds} ms</span>
        <PinButton mock={mock} exchange={exchange} />
      </header>
      <div className="panel-body">
        <KeepExchange key={exchange.number} mock={mock} exchange={exchange} />
        <MatchNarrowing key={`narrowing ${exchange.number}`} steps={exchange.narrowing} />
        <table className="trace">
          <tbody>
            {exchange.trace.map(({ step, outcome, text, milliseconds }, index) => (
              <tr key={index} className={outcome}>
                <td>{STEP_WORDS[step]}</td>
                <td className={text.includes('\n') ? 'long mono' : ''}>{text}</td>
                <td className="took">{milliseconds?.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <Candidates exchange={exchange} />
        {exchange.operation !== null && (
          <WhyOperation key={`why ${exchange.number}`} contract={contract} operation={exchange.operation} />
        )}
        <header className="panel-head">
          <h3>Records</h3>
          <span className="quiet">{countText(exchange.records)}</span>
        </header>
        {exchange.removed.length === 0 ? (
          <RecordTables changes={exchange.records} />
        ) : (
          <>
            <RemovalTree trees={exchange.removed} />
            <RecordTables changes={exchange.records.filter(({ effect }) => effect !== 'removed')} />
            <details key={exchange.number} className="candidates">
              <summary>
                {amount(exchange.records.filter(isRemoved).length, 'removed record')}, one by one
              </summary>
              <RecordTables changes={exchange.records.filter(isRemoved)} />
            </details>
          </>
        )}
      </div>
    </section>
  );
}

/** Keeps an exchange whatever goes, or lets go of it. */
function PinButton({ mock, exchange: { number, pinned } }: PinProps): React.JSX.Element {
  const [pin] = usePinExchangeMutation();
  const [refused, setRefused] = useState<string | null>(null);
  return (
    <>
      {refused !== null && (
        <span className="wrong" role="alert">
          {refused}
        </span>
      )}
      <button
        type="button"
        className="text-button"
        aria-pressed={pinned}
        onClick={() => {
          pin({ mock, number, isPinned: !pinned })
            .unwrap()
            .then(
              () => setRefused(null),
              (error: unknown) => setRefused(refusalText(error)),
            );
        }}
      >
        {pinned ? 'Unpin' : 'Pin'}
      </button>
    </>
  );
}

interface PinProps {
  readonly mock: string;
  readonly exchange: Exchange;
}

/** What it might have been meant for, where nothing matched. */
function Candidates({ exchange }: { readonly exchange: Exchange }): React.JSX.Element | null {
  const { nearMisses, operation } = exchange;
  if (nearMisses.length === 0 || operation !== null) return null;
  return (
    <div className="candidates">
      <p>The nearest that there are</p>
      <ul>
        {nearMisses.map((candidate) => (
          <li key={candidate.operation}>
            <code>{candidate.address}</code> <span className="quiet">{candidate.why}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function countText(records: readonly RecordChange[]): string {
  if (records.length === 0) return 'none changed';
  return records.length === 1 ? 'one changed' : `${records.length} changed`;
}

const isRemoved = ({ effect }: RecordChange): boolean => effect === 'removed';

function RecordTables({ changes }: { readonly changes: readonly RecordChange[] }): React.JSX.Element {
  return (
    <>
      {changes.map((change, index) => (
        <RecordTable key={index} change={change} />
      ))}
    </>
  );
}

function RecordTable({ change }: { readonly change: RecordChange }): React.JSX.Element {
  const { entity, key, effect, before, after } = change;
  const names = [...new Set([...Object.keys(before ?? {}), ...Object.keys(after ?? {})])];
  const changed = names.filter((name) => isChanged(change, name));
  const same = names.filter((name) => !isChanged(change, name));
  return (
    <>
      <div className="record-title">
        <span className="strong">
          {entity} {text(key)}
        </span>{' '}
        {effect === 'changed' ? `${changed.length} of ${names.length} attributes changed` : effect}{' '}
        <EntityLine entity={entity} />
      </div>
      <AttributeRows change={change} names={effect === 'changed' ? changed : names} />
      {effect === 'changed' && same.length > 0 && (
        <details className="candidates">
          <summary>{amount(same.length, 'attribute')} as before</summary>
          <AttributeRows change={change} names={same} />
        </details>
      )}
    </>
  );
}

interface AttributeRowsProps {
  readonly change: RecordChange;
  readonly names: readonly string[];
}

function AttributeRows({ change, names }: AttributeRowsProps): React.JSX.Element {
  const { before, after } = change;
  return (
    <table className="records">
      <thead>
        <tr>
          <th>attribute</th>
          <th>before</th>
          <th>after</th>
        </tr>
      </thead>
      <tbody>
        {names.map((name) => (
          <tr key={name}>
            <td className="name">{name}</td>
            <td className={before === null ? 'quiet' : ''}>{cell(before, name)}</td>
            <td className={isChanged(change, name) ? 'changed' : 'quiet'}>
              {isChanged(change, name) || after === null ? cell(after, name) : 'same'}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const text = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value));

function cell(image: RecordImage | null, name: string): string {
  if (image === null) return 'not there';
  const value = image[name] ?? null;
  return value === null ? 'unset' : text(value);
}

const isChanged = ({ before, after }: RecordChange, name: string): boolean =>
  after !== null && JSON.stringify(before?.[name] ?? null) !== JSON.stringify(after[name] ?? null);
