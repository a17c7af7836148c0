import { indexContract, type Contract, type Effect } from '@isomeros/core/contract';
import { Input } from 'antd';
import { useMemo, useState } from 'react';
import type { Exchange, ExchangeSummary, Mock } from '@isomeros/api';
import { EffectMark } from '../app/parts/EffectMark.js';
import { RowList } from '../app/parts/RowList.js';
import { useAppSelector } from '../app/store.js';
import { ExchangeMessages } from './ExchangeMessages.js';
import { ALL, lookedForParts, type LookedFor } from './exchangesQuery.js';
import type { Followed } from './followMock.js';
import { JournalMenu } from './JournalMenu.js';
import { MessageEditor } from './MessageEditor.js';
import { useFoundExchanges, type FoundExchanges } from './useFoundExchanges.js';
import { readingMessage } from './messageText.js';
import { holdsWords } from '@isomeros/core/model';

interface Props {
  /** What is served; `null` while it is being read. */
  readonly contract: Contract | null;
  readonly mock: Mock;
  readonly baseUrl: string;
  /** As they come, oldest first. */
  readonly live: readonly ExchangeSummary[];
  /** What is looked for; `null` while they are shown as they come. */
  readonly looked: LookedFor | null;
  readonly onLook: (looked: LookedFor | null) => void;
  /** Where more happens than is shown. */
  readonly sampled: Followed['sampled'];
  readonly selected: number | null;
  readonly exchange: Exchange | null;
  readonly firstMessage: string | null;
  readonly onSelect: (exchange: ExchangeSummary) => void;
  readonly onSend: (message: string) => void;
}

/** Where the first collection is served. */
function firstAddress(baseUrl: string, contract: Contract | null): string | null {
  const first = contract?.resources.find(({ kind }) => kind === 'collection');
  return first === undefined ? null : baseUrl + first.path;
}

interface EmptyProps {
  readonly isLookedFor: boolean;
  readonly isReading: boolean;
  readonly first: string | null;
}

function EmptyLog({ isLookedFor, isReading, first }: EmptyProps): React.JSX.Element {
  if (isLookedFor)
    return <p className="empty-note">{isReading ? '' : 'The journal holds no such exchange.'}</p>;
  return (
    <div className="empty-log">
      <p className="empty-note">
        No exchange yet. Send the message below, or call the base URL from any client: it shows up here as it
        happens.
      </p>
      {first !== null && <pre>curl {first}</pre>}
    </div>
  );
}

/** Every exchange, newest last, from whatever client; the chosen one as it travelled; the next message. */
export function ExchangeLog(props: Props): React.JSX.Element {
  const { mock, contract, live, looked, selected, exchange, firstMessage, onSelect, onSend } = props;
  const [typed, setTyped] = useState('');
  const found = useFoundExchanges(mock.id, looked, live.at(-1)?.number ?? 0);
  const exchanges = looked === null ? live : found.exchanges;
  const shown = useMemo(() => narrow(exchanges, typed), [exchanges, typed]);
  const clients = useMemo(() => [...new Set(live.map(({ client }) => client))].sort(), [live]);
  return (
    <section className="exchange-log" aria-label="Exchanges">
      <header className="panel-head">
        <h2>Exchanges</h2>
        <HeadWords {...props} found={found} />
        <span className="end">
          <Input
            aria-label="Narrow the exchanges"
            placeholder={`Type to narrow ${exchanges.length}`}
            style={{ width: 160 }}
            value={typed}
            onChange={({ target }) => {
              setTyped(target.value);
            }}
            allowClear
          />{' '}
          <JournalMenu
            mock={mock}
            contract={contract}
            clients={clients}
            looked={looked}
            onLook={props.onLook}
          />
        </span>
      </header>
      {exchanges.length === 0 ? (
        <EmptyLog
          isLookedFor={looked !== null}
          isReading={found.isReading}
          first={firstAddress(props.baseUrl, contract)}
        />
      ) : (
        <RowList
          key={JSON.stringify(looked)}
          label="Exchange log"
          rows={shown}
          rowKey={({ number }) => String(number)}
          rowHeight={22}
          selected={selected === null ? null : String(selected)}
          onSelect={onSelect}
          followEnd={typed === ''}
        >
          {(row) => <ExchangeRow row={row} />}
        </RowList>
      )}
      {exchange === null ? (
        <div />
      ) : (
        <ExchangeMessages
          exchange={exchange}
          onFollow={(path) => {
            if (contract !== null) onSend(readingMessage(contract, path));
          }}
        />
      )}
      {contract !== null && (
        <MessageEditor
          contract={contract}
          running={mock.running}
          firstMessage={firstMessage}
          onSend={onSend}
        />
      )}
    </section>
  );
}

interface HeadProps extends Props {
  readonly found: FoundExchanges;
}

/** What the list holds: all as they come, or what is looked for and how much of it was read. */
function HeadWords({ mock, live, looked, sampled, found, onLook }: HeadProps): React.JSX.Element {
  if (looked === null && sampled !== null)
    return (
      <span className="quiet" role="status">
        {sampled.told} of {sampled.of} shown, more than can be followed
      </span>
    );
  if (looked === null) {
    const kept = mock.exchanges - mock.journal.from + 1;
    return live.length >= kept ? (
      <span className="quiet">newest last, from every client</span>
    ) : (
      <span className="looked-for">
        <span className="quiet">
          {live.length} of {kept}, newest last
        </span>
        <button type="button" className="text-button" onClick={() => onLook(ALL)}>
          All
        </button>
      </span>
    );
  }
  return (
    <span className="looked-for">
      {lookedForParts(looked).map(({ words, without }) => (
        <button
          key={words}
          type="button"
          className="text-button"
          title="Look for all but this"
          onClick={() => onLook(without)}
        >
          {words} <span aria-hidden>×</span>
        </button>
      ))}
      <span className="quiet">
        {found.exchanges.length}
        {found.readMore === null ? '' : ' and more before'}
      </span>
      {found.readMore !== null && (
        <button type="button" className="text-button" onClick={found.readMore}>
          Older
        </button>
      )}
      <button type="button" className="text-button" onClick={() => onLook(null)}>
        As they come
      </button>
    </span>
  );
}

const clock = (at: string): string => new Date(at).toTimeString().slice(0, 8);

/** The effect a method has by its definition (RFC 9110 §9.2), for exchanges that no operation handled. */
const METHOD_EFFECTS: Readonly<Record<string, Effect>> = {
  GET: 'safe',
  HEAD: 'safe',
  OPTIONS: 'safe',
  TRACE: 'safe',
  PUT: 'idempotent',
  DELETE: 'idempotent',
};

function ExchangeRow({ row }: { readonly row: ExchangeSummary }): React.JSX.Element {
  const contract = useAppSelector((state) => state.derived.contract?.whole ?? null);
  const operation =
    contract === null ? undefined : indexContract(contract).operations.get(row.operation ?? '');
  return (
    <span className="exchange-row">
      <span className={row.pinned ? 'pinned' : 'quiet'} title={row.pinned ? 'pinned' : undefined}>
        {row.number}
      </span>
      <span className="quiet">{clock(row.at)}</span>
      <span className="quiet">{row.client}</span>
      <EffectMark effect={operation?.effect ?? METHOD_EFFECTS[row.method] ?? 'neither'} />
      <span className="mono method">{row.method}</span>
      <span className="mono target" title={row.target}>
        {row.target}
      </span>
      <span className={row.operation === null ? 'quiet' : ''}>{row.operation ?? 'no operation'}</span>
      <span className={row.status >= 400 ? 'mono strong wrong' : 'mono'}>{row.status}</span>
      <span className="quiet end">
        {row.milliseconds < 10 ? row.milliseconds.toFixed(1) : Math.round(row.milliseconds)} ms
      </span>
    </span>
  );
}

function narrow(exchanges: readonly ExchangeSummary[], typed: string): readonly ExchangeSummary[] {
  if (typed.trim() === '') return exchanges;
  const holds = holdsWords(typed);
  return exchanges.filter(({ number, client, method, target, operation, status }) =>
    holds(`${number} ${client} ${method} ${target} ${operation ?? ''} ${status}`),
  );
}
