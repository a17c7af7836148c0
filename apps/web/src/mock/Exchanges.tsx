import { skipToken } from '@reduxjs/toolkit/query';
import { useState } from 'react';
import { useLocation } from 'react-router';
import type { ExchangeSummary } from '@isomeros/api';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { ExchangeLog } from './ExchangeLog.js';
import { contractOf, type MockEndpoint } from './endpoints.js';
import type { LookedFor } from './exchangesQuery.js';
import { useFollowMockQuery } from './followMock.js';
import { useReadExchangeQuery, useSendMessageMutation } from './mocksApi.js';
import { useEndpointContract } from './useEndpointContract.js';
import { ExchangeDetail } from './ExchangeDetail.js';

const NONE: readonly ExchangeSummary[] = [];

/** Where in the journal somebody begins to look. */
export interface JournalPlace {
  readonly exchange: number | null;
  readonly looked: LookedFor | null;
}

export const NEWEST: JournalPlace = { exchange: null, looked: null };

interface Props {
  readonly begin: JournalPlace;
  /** What messages are sent to. */
  readonly endpoint: MockEndpoint;
  /** Does something that the server may refuse. */
  readonly attempt: (work: () => Promise<unknown>) => Promise<void>;
}

/** Every exchange of a mock, and what happened in one of them. */
export function Exchanges({ begin, endpoint, attempt }: Props): React.JSX.Element {
  const { mock } = endpoint;
  const state: unknown = useLocation().state;
  const contract = useEndpointContract(endpoint);
  const followed = useFollowMockQuery(mock.id).data;
  const exchanges = followed?.exchanges ?? NONE;
  const [sendMessage] = useSendMessageMutation();
  const [chosen, setChosen] = useState<number | null>(begin.exchange);
  const [looked, setLooked] = useState<LookedFor | null>(begin.looked);
  const newest = exchanges.at(-1)?.number ?? null;
  const selected = chosen ?? newest;
  // The one before stays while the next is read.
  const { data: read, isError } = useReadExchangeQuery(
    selected === null ? skipToken : { mock: mock.id, number: selected },
  );
  const exchange = selected === null || isError ? null : (read ?? null);
  const send = (message: string): void => {
    void attempt(async () => {
      const asked = { mock: mock.id, message, to: contractOf(endpoint) };
      const { lastExchange } = await sendMessage(asked).unwrap();
      setChosen(lastExchange === 0 ? null : lastExchange);
    });
  };
  return (
    <SplitPanels name="mock" first={776}>
      <ExchangeLog
        contract={contract}
        mock={mock}
        baseUrl={endpoint.url}
        live={exchanges}
        looked={looked}
        onLook={setLooked}
        sampled={followed?.sampled ?? null}
        selected={selected}
        exchange={exchange}
        firstMessage={messageIn(state)}
        onSelect={({ number }) => {
          setChosen(number === newest ? null : number);
        }}
        onSend={send}
      />
      <ExchangeDetail mock={mock.id} contract={contract} exchange={exchange} />
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
