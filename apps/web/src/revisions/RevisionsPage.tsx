import { useCallback, useEffect, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { Button, Segmented } from 'antd';
import { api, ApiError, refusalText } from '../app/api/client.js';
import type { Revision, RevisionSummary } from '@isomeros/api';
import { RowList } from '../app/parts/RowList.js';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { designChanged } from '../design/designSlice.js';
import { Differences } from './Differences.js';
import './revisions.css';

type Against = 'before' | 'now';

/** Every saved state of the design, what each changed, and the way back to it. */
export function RevisionsPage(): React.JSX.Element {
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const { design, keeping, text, choices } = useAppSelector((state) => state.design);
  const latest = design?.revision ?? 0;
  const { items, more, loadMore, problem } = useRevisions(id, latest);
  const [selected, setSelected] = useState<number | null>(null);
  const [against, setAgainst] = useState<Against>('before');
  const [failed, setFailed] = useState<string | null>(null);
  const chosen = selected ?? items[0]?.number ?? null;
  const shown = useRevision(id, chosen);
  const before = useRevision(id, chosen === null || chosen <= 1 ? null : chosen - 1);
  const restore = async (number: number): Promise<void> => {
    try {
      dispatch(designChanged(await api.restoreRevision(id, number, latest)));
      void navigate(`/designs/${id}/model`);
    } catch (error) {
      setFailed(refusalText(error));
    }
  };
  const canRestore = chosen !== null && chosen !== latest && keeping.kind === 'kept';
  const other = against === 'now' ? { text, choices } : (before ?? { text: '', choices: null });
  return (
    <SplitPanels name="revisions" first={420}>
      <section className="panel" aria-label="Revisions">
        <header className="panel-head">
          <h2>Revisions</h2>
          <span className="quiet">every saved state, latest first</span>
        </header>
        {(problem ?? failed) !== null && (
          <div className="notice bad" role="alert">
            {problem ?? failed}
          </div>
        )}
        <RowList
          label="Revisions"
          rows={items}
          rowKey={({ number }) => String(number)}
          rowHeight={24}
          selected={chosen === null ? null : String(chosen)}
          onSelect={({ number }) => setSelected(number)}
        >
          {(revision) => <RevisionRow revision={revision} isLatest={revision.number === latest} />}
        </RowList>
        {more && (
          <button type="button" className="text-button older" onClick={loadMore}>
            Show older ones
          </button>
        )}
      </section>
      <section className="panel" aria-label="Differences">
        <header className="panel-head">
          <h2>Differences</h2>
          <Segmented<Against>
            value={against}
            onChange={setAgainst}
            options={[
              { value: 'before', label: 'to the revision before' },
              { value: 'now', label: 'to what is there now' },
            ]}
          />
          <span className="end">
            <Button
              type="primary"
              ghost
              disabled={!canRestore}
              onClick={() => chosen !== null && void restore(chosen)}
            >
              Make this the latest
            </Button>
          </span>
        </header>
        {shown !== null && <Differences shown={shown} other={other} isOlder={against === 'now'} />}
      </section>
    </SplitPanels>
  );
}

const WHAT: Readonly<Record<RevisionSummary['what'], string>> = {
  begun: 'begun',
  text: 'text',
  choices: 'decisions',
  rename: 'told a rename',
  restored: 'brought back',
};

function RevisionRow({
  revision: { number, at, what, valid, lines },
  isLatest,
}: {
  readonly revision: RevisionSummary;
  readonly isLatest: boolean;
}): React.JSX.Element {
  return (
    <span className="revision-row">
      <span className="number quiet">{number}</span>
      <span>{momentOf(at)}</span>
      <span>{WHAT[what]}</span>
      <span className="mono">
        {lines.added + lines.removed > 0 ? `+${lines.added} −${lines.removed}` : ''}
      </span>
      <span className={valid ? 'quiet' : 'wrong'}>{valid ? (isLatest ? 'now' : '') : 'errors'}</span>
    </span>
  );
}

function momentOf(at: string): string {
  const date = new Date(at);
  const time = date.toTimeString().slice(0, 8);
  const isToday = date.toDateString() === new Date().toDateString();
  return isToday ? time : `${date.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })} ${time}`;
}

interface Loaded {
  readonly items: readonly RevisionSummary[];
  readonly next: string | null;
}

/** The list, read again when there is a newer revision. */
function useRevisions(
  id: string,
  latest: number,
): {
  readonly items: readonly RevisionSummary[];
  readonly more: boolean;
  readonly loadMore: () => void;
  readonly problem: string | null;
} {
  const [loaded, setLoaded] = useState<Loaded>({ items: [], next: null });
  const [problem, setProblem] = useState<string | null>(null);
  const load = useCallback(
    (cursor: string | null, known: readonly RevisionSummary[]): void => {
      api
        .listRevisions(id, cursor)
        .then(({ items, next }) => {
          setProblem(null);
          setLoaded({ items: [...known, ...items], next });
        })
        .catch((error: unknown) => {
          setProblem(refusalText(error));
        });
    },
    [id],
  );
  useEffect(() => {
    if (latest > 0) load(null, []);
  }, [load, latest]);
  return {
    items: loaded.items,
    more: loaded.next !== null,
    loadMore: () => load(loaded.next, loaded.items),
    problem,
  };
}

/** One revision with its text; revisions never change, so each is read once. */
function useRevision(id: string, number: number | null): Revision | null {
  const [read, setRead] = useState<ReadonlyMap<number, Revision>>(new Map());
  const known = number === null ? undefined : read.get(number);
  useEffect(() => {
    if (number === null || known !== undefined) return;
    let isWanted = true;
    api
      .readRevision(id, number)
      .then((revision) => {
        if (isWanted) setRead((all) => new Map([...all, [number, revision]]));
      })
      .catch((error: unknown) => {
        if (!(error instanceof ApiError)) throw error;
      });
    return () => {
      isWanted = false;
    };
  }, [id, number, known]);
  return known ?? null;
}
