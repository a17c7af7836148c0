import { indexContract, type Contract, type Effect } from '@isomeros/core/contract';
import { Input } from 'antd';
import { useMemo, useState } from 'react';
import type { Exchange, ExchangeSummary } from '@isomeros/api';
import { EffectMark } from '../app/parts/EffectMark.js';
import { RowList } from '../app/parts/RowList.js';
import { useAppSelector } from '../app/store.js';
import { ExchangeMessages } from './ExchangeMessages.js';
import { MessageEditor } from './MessageEditor.js';
import { readingMessage } from './messageText.js';
import { holdsWords } from '@isomeros/core/model';

interface Props {
  /** What is served; `null` while it is being read. */
  readonly contract: Contract | null;
  readonly exchanges: readonly ExchangeSummary[];
  readonly selected: number | null;
  readonly exchange: Exchange | null;
  readonly running: boolean;
  readonly firstMessage: string | null;
  readonly onSelect: (exchange: ExchangeSummary) => void;
  readonly onSend: (message: string) => void;
}

/** Every exchange, newest last, from whatever client; the chosen one as it travelled; the next message. */
export function ExchangeLog(props: Props): React.JSX.Element {
  const { contract, exchanges, selected, exchange, running, firstMessage, onSelect, onSend } = props;
  const [typed, setTyped] = useState('');
  const shown = useMemo(() => narrow(exchanges, typed), [exchanges, typed]);
  return (
    <section className="exchange-log" aria-label="Exchanges">
      <header className="panel-head">
        <h2>Exchanges</h2>
        <span className="quiet">newest last, from every client</span>
        <span className="end">
          <Input
            aria-label="Narrow the exchanges"
            placeholder={`Type to narrow ${exchanges.length}`}
            style={{ width: 170 }}
            value={typed}
            onChange={({ target }) => {
              setTyped(target.value);
            }}
            allowClear
          />
        </span>
      </header>
      {exchanges.length === 0 ? (
        <p className="empty-note">
          No exchange yet. Send the message below, or call the base URL from any client: it shows up here as
          it happens.
        </p>
      ) : (
        <RowList
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
        <MessageEditor contract={contract} running={running} firstMessage={firstMessage} onSend={onSend} />
      )}
    </section>
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
      <span className="quiet">{row.number}</span>
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
