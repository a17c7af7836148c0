import { useCallback, useEffect, useRef, useState } from 'react';
import { useParams } from 'react-router';
import { api, refusalText } from '../app/api/client.js';
import type { Mock } from '@isomeros/api';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { Exchanges } from './Exchanges.js';
import { endpointKey } from './endpoints.js';
import { MigrationPage } from './MigrationPage.js';
import { MockToolbar } from './MockToolbar.js';
import { loadMocks, mockChanged, mockRemoved } from './mocksSlice.js';
import { RecordsPage } from './RecordsPage.js';
import { StartMock } from './StartMock.js';
import { useSelectedEndpoint } from './useSelectedEndpoint.js';
import './mock.css';

/** What stands below the mock's own line. */
type View = 'exchanges' | 'records' | 'migration';

/** The mock of a design: its line, every exchange, and what happened in one of them. */
export function MockPage(): React.JSX.Element {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const { endpoints, endpoint } = useSelectedEndpoint(id);
  const mock = endpoint?.mock ?? null;
  const names = useAppSelector((root) => root.design.choices.arrangements).map(({ name }) => name);
  const loaded = useAppSelector((root) => root.mocks.loaded);
  const [problem, setProblem] = useState<string | null>(null);
  const [view, setView] = useState<View>('exchanges');
  const back = (): void => {
    setView('exchanges');
  };
  useParting(mock);
  const attempt = useCallback(async (work: () => Promise<void>): Promise<void> => {
    try {
      await work();
      setProblem(null);
    } catch (error) {
      setProblem(refusalText(error));
    }
  }, []);
  const change = (work: () => Promise<Mock>): void => {
    void attempt(async () => void dispatch(mockChanged(await work())));
  };
  const start = (releases: readonly string[]): void => {
    change(() => api.createMock(id, names, releases));
  };
  const remove = (): void => {
    if (mock === null) return;
    void attempt(async () => {
      await api.removeMock(mock.id);
      dispatch(mockRemoved(mock.id));
      void dispatch(loadMocks());
    });
  };
  if (endpoint === null || mock === null) {
    return loaded ? <StartMock problem={problem} onStart={start} /> : <section className="panel" />;
  }
  return (
    <div className="mock-page">
      <MockToolbar
        endpoints={endpoints}
        endpoint={endpoint}
        onServe={() => start([])}
        onAct={(action) => {
          change(() => api.actOnMock(mock.id, action));
        }}
        showsRecords={view === 'records'}
        onRecords={() => {
          setView(view === 'records' ? 'exchanges' : 'records');
        }}
        onRestore={(name) => {
          change(() => api.restoreSnapshot(mock.id, name));
        }}
        onRemove={remove}
      />
      <Notices
        mock={mock}
        problem={problem}
        isDeciding={view === 'migration'}
        onDecide={() => {
          setView('migration');
        }}
      />
      {view === 'records' && (
        <RecordsPage
          mock={mock}
          onChanged={() => void attempt(async () => void dispatch(mockChanged(await api.readMock(mock.id))))}
          onReset={() =>
            attempt(async () => void dispatch(mockChanged(await api.actOnMock(mock.id, 'reset'))))
          }
          onClose={back}
        />
      )}
      {view === 'migration' && (
        <MigrationPage
          mock={mock}
          onMigrated={(migrated) => dispatch(mockChanged(migrated))}
          onClose={back}
        />
      )}
      {view === 'exchanges' && (
        <Exchanges key={endpointKey(endpoint)} endpoint={endpoint} attempt={attempt} />
      )}
    </div>
  );
}

/** A release that gets records of its own is a mock that is not known yet. */
function useParting(mock: Mock | null): void {
  const dispatch = useAppDispatch();
  const before = useRef(mock);
  useEffect(() => {
    const known = before.current;
    before.current = mock;
    if (
      known?.id === mock?.id &&
      known !== null &&
      mock !== null &&
      known.releases.length > mock.releases.length
    )
      void dispatch(loadMocks());
  }, [mock, dispatch]);
}

interface NoticesProps {
  readonly mock: Mock;
  readonly problem: string | null;
  /** Whether what stands against the newest model is looked at already. */
  readonly isDeciding: boolean;
  readonly onDecide: () => void;
}

function Notices({ mock, problem, isDeciding, onDecide }: NoticesProps): React.JSX.Element {
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
      <ShortfallNotice shortfalls={mock.shortfalls} />
      {mock.obstacles.length > 0 && !isDeciding && (
        <div className="notice" role="status">
          <span>
            The model has changed, and these records stand against it: {mock.obstacles.slice(0, 2).join(' ')}
            {mock.obstacles.length > 2 && ` And ${mock.obstacles.length - 2} more.`} The mock serves revision{' '}
            {mock.servesRevision} until it is decided what becomes of them, or it is reset.
          </span>
          <button type="button" className="text-button" onClick={onDecide}>
            Migrate
          </button>
        </div>
      )}
    </div>
  );
}

/** Which entities have fewer seed records than wanted, until it is closed. */
function ShortfallNotice({ shortfalls }: Pick<Mock, 'shortfalls'>): React.JSX.Element | null {
  const told = JSON.stringify(shortfalls);
  const [closed, setClosed] = useState('');
  if (shortfalls.length === 0 || closed === told) return null;
  return (
    <div className="notice" role="status">
      <ul className="shortfalls">
        {shortfalls.map(({ entity, wanted, made, why }) => (
          <li key={entity}>
            {entity}: {made} of {wanted} seed records. {why}
          </li>
        ))}
      </ul>
      <button type="button" className="text-button" onClick={() => setClosed(told)}>
        Close
      </button>
    </div>
  );
}
