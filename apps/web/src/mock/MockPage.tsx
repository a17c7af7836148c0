import { useCallback, useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { api, refusal } from '../app/api/client.js';
import type { Mock } from '../app/api/types.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { Exchanges } from './Exchanges.js';
import { MockLine } from './MockLine.js';
import { loadMocks, mockChanged, mockRemoved } from './mocksSlice.js';
import { RecordsPage } from './RecordsPage.js';
import { StartMock } from './StartMock.js';
import { useDesignMock } from './useDesignMock.js';
import './mock.css';

/** The mock of a design: its line, every exchange, and what happened in one of them. */
export function MockPage(): React.JSX.Element {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const mock = useDesignMock(id);
  const arrangement = useAppSelector((root) => root.design.arrangement);
  const names = useAppSelector((root) => root.design.choices.arrangements).map(({ name }) => name);
  const loaded = useAppSelector((root) => root.mocks.loaded);
  const [problem, setProblem] = useState<string | null>(null);
  const [showsRecords, setShowsRecords] = useState(false);
  const served = servedOf(mock, arrangement);
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
        showsRecords={showsRecords}
        onRecords={() => {
          setShowsRecords(!showsRecords);
        }}
        onRestore={(name) => {
          change(() => api.restoreSnapshot(mock.id, name));
        }}
        onRemove={remove}
      />
      <Notices mock={mock} problem={problem} />
      {showsRecords ? (
        <RecordsPage
          mock={mock}
          onChanged={() => void attempt(async () => void dispatch(mockChanged(await api.readMock(mock.id))))}
          onReset={() =>
            attempt(async () => void dispatch(mockChanged(await api.actOnMock(mock.id, 'reset'))))
          }
          onClose={() => {
            setShowsRecords(false);
          }}
        />
      ) : (
        <Exchanges mock={mock} served={served} attempt={attempt} />
      )}
    </div>
  );
}

/** The arrangement that is looked at, where the mock serves it; else the first that it does. */
const servedOf = (mock: Mock | null, arrangement: string): string =>
  mock === null || mock.arrangements.includes(arrangement)
    ? arrangement
    : (mock.arrangements[0] ?? arrangement);

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
