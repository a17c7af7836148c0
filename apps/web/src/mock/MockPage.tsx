import { useCallback, useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { refusalText, type MockAction } from '../app/api/client.js';
import type { Mock } from '@isomeros/api';
import { useAppSelector } from '../app/store.js';
import { Exchanges, NEWEST } from './Exchanges.js';
import { LoadPage } from './LoadPage.js';
import type { MockView } from './mockView.js';
import { endpointKey } from './endpoints.js';
import { MigrationPage } from './MigrationPage.js';
import { MockToolbar } from './MockToolbar.js';
import {
  useActOnMockMutation,
  useCreateMockMutation,
  useListMocksQuery,
  useRemoveMockMutation,
} from './mocksApi.js';
import { useRestoreSnapshotMutation } from './recordsApi.js';
import { RecordsPage } from './RecordsPage.js';
import { WorkProgress } from './WorkProgress.js';
import { StartMock } from './StartMock.js';
import { useRunning } from './useRunning.js';
import { useSelectedEndpoint } from './useSelectedEndpoint.js';
import './mock.css';
import { Notice } from '../app/parts/Notice.js';

/** The mock of a design: its line, every exchange, and what happened in one of them. */
export function MockPage(): React.JSX.Element {
  const { id = '' } = useParams();
  const { endpoints, endpoint } = useSelectedEndpoint(id);
  const mock = endpoint?.mock ?? null;
  const arrangements = useAppSelector((root) => root.document.choices.arrangements);
  const { isSuccess: isKnown } = useListMocksQuery(null);
  const [createMock] = useCreateMockMutation();
  const [actOnMock] = useActOnMockMutation();
  const [removeMock] = useRemoveMockMutation();
  const [restoreSnapshot] = useRestoreSnapshotMutation();
  const [problem, setProblem] = useState<string | null>(null);
  const [view, setView] = useState<MockView>('exchanges');
  const [place, setPlace] = useState(NEWEST);
  const show = (next: MockView): void => {
    setPlace(NEWEST);
    setView(next);
  };
  const back = (): void => show('exchanges');
  const attempt = useCallback(async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work();
      setProblem(null);
    } catch (error) {
      setProblem(refusalText(error));
    }
  }, []);
  const { work, run } = useRunning();
  const act = async (action: MockAction): Promise<void> => {
    if (mock !== null) await attempt(() => run(actOnMock({ id: mock.id, action })));
  };
  const start = (releases: readonly string[], initialRecords?: boolean): void => {
    const names = arrangements.map(({ name }) => name);
    const said = initialRecords === undefined ? {} : { initialRecords };
    void attempt(() => createMock({ design: id, arrangements: names, releases, ...said }).unwrap());
  };
  if (endpoint === null || mock === null) {
    return isKnown ? <StartMock problem={problem} onStart={start} /> : <section className="panel" />;
  }
  return (
    <div className="mock-page">
      <MockToolbar
        endpoints={endpoints}
        endpoint={endpoint}
        onServe={() => start([])}
        onAct={act}
        view={view}
        onView={show}
        onRestore={(name) => {
          void attempt(() => run(restoreSnapshot({ mock: mock.id, name })));
        }}
        onRemove={() => void attempt(() => removeMock(mock.id).unwrap())}
      />
      <div>
        <Notices
          mock={mock}
          problem={problem}
          isDeciding={view === 'migration'}
          onDecide={() => {
            show('migration');
          }}
        />
        {work !== null && <WorkProgress mock={mock.id} onCancel={work.abort} />}
      </div>
      {view === 'records' && (
        <RecordsPage
          endpoint={endpoint}
          onJournal={(next) => {
            setPlace(next);
            setView('exchanges');
          }}
          onReset={() => act('reset')}
        />
      )}
      {view === 'load' && <LoadPage mock={mock} />}
      {view === 'migration' && <MigrationPage mock={mock} onClose={back} />}
      {view === 'exchanges' && (
        <Exchanges key={endpointKey(endpoint)} begin={place} endpoint={endpoint} attempt={attempt} />
      )}
    </div>
  );
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
        <Notice>
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
        </Notice>
      )}
      <ToldOnce
        lines={mock.shortfalls.map(
          ({ entity, wanted, made, why }) => `${entity}: ${made} of ${wanted} seed records. ${why}`,
        )}
      />
      <ToldOnce title="The initial records did not fit the newest model." lines={mock.adjustments} />
      {mock.obstacles.length > 0 && !isDeciding && (
        <Notice kind="known">
          <span>
            The model has changed, and these records stand against it: {mock.obstacles.slice(0, 2).join(' ')}
            {mock.obstacles.length > 2 && ` And ${mock.obstacles.length - 2} more.`} The mock serves revision{' '}
            {mock.servesRevision} until it is decided what becomes of them, or it is reset.
          </span>
          <button type="button" className="text-button" onClick={onDecide}>
            Migrate
          </button>
        </Notice>
      )}
    </div>
  );
}

/** What is to be known of the first records, until it is closed. */
function ToldOnce({
  title,
  lines,
}: {
  readonly title?: string;
  readonly lines: readonly string[];
}): React.JSX.Element | null {
  const told = lines.join('\n');
  const [closed, setClosed] = useState('');
  if (lines.length === 0 || closed === told) return null;
  return (
    <Notice kind="known">
      <ul className="shortfalls">
        {title !== undefined && <li className="strong">{title}</li>}
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <button type="button" className="text-button" onClick={() => setClosed(told)}>
        Close
      </button>
    </Notice>
  );
}
