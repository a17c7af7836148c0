import { useCallback, useEffect, useState } from 'react';
import { useLocation, useParams } from 'react-router';
import { api, refusal } from '../app/api/client.js';
import type { ExchangeSummary, Mock } from '../app/api/types.js';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { ExchangeLog } from './ExchangeLog.js';
import { MockLine } from './MockLine.js';
import { exchangesArrived, loadMocks, mockChanged, mockRemoved } from './mocksSlice.js';
import { StartMock } from './StartMock.js';
import { useDesignMock } from './useDesignMock.js';
import { useExchange } from './useExchange.js';
import { WhatHappened } from './WhatHappened.js';
import './mock.css';

const NONE: readonly ExchangeSummary[] = [];

/** The mock of a design: its line, every exchange, and what happened in one of them. */
export function MockPage(): React.JSX.Element {
  const { id = '' } = useParams();
  const state: unknown = useLocation().state;
  const dispatch = useAppDispatch();
  const mock = useDesignMock(id);
  const arrangement = useAppSelector((root) => root.design.arrangement);
  const names = useAppSelector((root) => root.design.choices.arrangements).map(({ name }) => name);
  const loaded = useAppSelector((root) => root.mocks.loaded);
  const exchanges = useAppSelector(({ mocks }) =>
    mock === null ? NONE : (mocks.exchanges[mock.id] ?? NONE),
  );
  const [chosen, setChosen] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const served = servedOf(mock, arrangement);
  const newest = exchanges.at(-1)?.number ?? null;
  const selected = chosen ?? newest;
  const exchange = useExchange(mock?.id ?? null, selected);
  const attempt = useCallback(async (work: () => Promise<void>): Promise<void> => {
    try {
      await work();
      setProblem(null);
    } catch (error) {
      setProblem(refusal(error));
    }
  }, []);
  const change = (work: () => Promise<Mock>): void => {
    void attempt(async () => void dispatch(mockChanged(await work())));
  };
  const send = (message: string): void => {
    if (mock === null) return;
    void attempt(async () => {
      const { lastExchange } = await api.sendMessage(mock.id, message, served);
      dispatch(exchangesArrived({ mock: mock.id, exchanges: await api.listExchanges(mock.id) }));
      setChosen(lastExchange === 0 ? null : lastExchange);
    });
  };
  const remove = (): void => {
    if (mock === null) return;
    void attempt(async () => {
      await api.removeMock(mock.id);
      dispatch(mockRemoved(mock.id));
      void dispatch(loadMocks());
    });
  };
  if (mock === null) {
    return loaded ? (
      <StartMock
        problem={problem}
        onStart={() => {
          change(() => api.createMock(id, names));
        }}
      />
    ) : (
      <section className="panel" />
    );
  }
  return (
    <div className="mock-page">
      <MockLine
        mock={mock}
        served={served}
        onAct={(action) => {
          change(() => api.actOnMock(mock.id, action));
        }}
        onRestore={(name) => {
          change(() => api.restoreSnapshot(mock.id, name));
        }}
        onRemove={remove}
      />
      <Notices mock={mock} problem={problem} />
      <SplitPanels name="mock" first={776}>
        <ExchangeLog
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
        <WhatHappened exchange={exchange} />
      </SplitPanels>
    </div>
  );
}

/** The arrangement that is looked at, where the mock serves it; else the first that it does. */
const servedOf = (mock: Mock | null, arrangement: string): string =>
  mock === null || mock.arrangements.includes(arrangement)
    ? arrangement
    : (mock.arrangements[0] ?? arrangement);

/** The message another view wants to be sent next. */
function messageIn(state: unknown): string | null {
  return typeof state === 'object' &&
    state !== null &&
    'message' in state &&
    typeof state.message === 'string'
    ? state.message
    : null;
}

function Notices({
  mock,
  problem,
}: {
  readonly mock: Mock;
  readonly problem: string | null;
}): React.JSX.Element {
  const [hidden, setHidden] = useState<string | null>(null);
  useEffect(() => {
    setHidden(null);
  }, [problem]);
  return (
    <div>
      {problem !== null && hidden !== problem && (
        <div className="notice bad" role="alert">
          {problem}
          <button
            type="button"
            className="text-button"
            onClick={() => {
              setHidden(problem);
            }}
          >
            Close
          </button>
        </div>
      )}
      {mock.obstacles.length > 0 && (
        <div className="notice" role="status">
          <span>
            The model has changed, and these records stand against it: {mock.obstacles.slice(0, 2).join(' ')}
            {mock.obstacles.length > 2 && ` And ${mock.obstacles.length - 2} more.`} The mock serves revision{' '}
            {mock.servesRevision} until it is reset.
          </span>
        </div>
      )}
    </div>
  );
}
