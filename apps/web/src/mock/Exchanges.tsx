import { useState } from 'react';
import { useLocation } from 'react-router';
import { api } from '../app/api/client.js';
import type { ExchangeSummary } from '@isomeros/api';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { ExchangeLog } from './ExchangeLog.js';
import type { MockEndpoint } from './endpoints.js';
import { exchangesArrived } from './mocksSlice.js';
import { useExchange } from './useExchange.js';
import { useEndpointContract } from './useEndpointContract.js';
import { ExchangeDetail } from './ExchangeDetail.js';

const NONE: readonly ExchangeSummary[] = [];

interface Props {
  /** What messages are sent to. */
  readonly endpoint: MockEndpoint;
  /** Does something that the server may refuse. */
  readonly attempt: (work: () => Promise<void>) => Promise<void>;
}

/** Every exchange of a mock, and what happened in one of them. */
export function Exchanges({ endpoint, attempt }: Props): React.JSX.Element {
  const { mock, kind, name } = endpoint;
  const state: unknown = useLocation().state;
  const dispatch = useAppDispatch();
  const contract = useEndpointContract(endpoint);
  const exchanges = useAppSelector(({ mocks }) => mocks.exchanges[mock.id] ?? NONE);
  const [chosen, setChosen] = useState<number | null>(null);
  const newest = exchanges.at(-1)?.number ?? null;
  const selected = chosen ?? newest;
  const exchange = useExchange(mock.id, selected);
  const send = (message: string): void => {
    void attempt(async () => {
      const { lastExchange } = await api.sendMessage(
        mock.id,
        message,
        kind === 'release' ? { release: name } : { arrangement: name },
      );
      dispatch(exchangesArrived({ mock: mock.id, exchanges: await api.listExchanges(mock.id) }));
      setChosen(lastExchange === 0 ? null : lastExchange);
    });
  };
  return (
    <SplitPanels name="mock" first={776}>
      <ExchangeLog
        contract={contract}
        exchanges={exchanges}
        selected={selected}
        exchange={exchange}
        running={mock.running}
        firstMessage={messageIn(state)}
        onSelect={({ number }) => {
          setChosen(number === newest ? null : number);
        }}
        onSend={send}
      />
      <ExchangeDetail exchange={exchange} />
    </SplitPanels>
  );
}

/** The message another view wants to be sent next. */
function messageIn(state: unknown): string | null {
  return typeof state === 'object' &&
    state !== null &&
    'message' in state &&
    typeof state.message === 'string'
    ? state.message
    : null;
}
