import { skipToken } from '@reduxjs/toolkit/query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { Button, Segmented } from 'antd';
import { problemOf, refusalText } from '../app/api/client.js';
import type { Revision, RevisionSummary } from '@isomeros/api';
import { Explained, ExplainedWords } from '../app/help/Explained.js';
import { RowList } from '../app/parts/RowList.js';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { designChanged } from '../design/documentSlice.js';
import { saveStateOf } from '../design/savingSlice.js';
import { Differences } from './Differences.js';
import {
  useListRevisionsInfiniteQuery,
  useReadRevisionQuery,
  useRestoreRevisionMutation,
} from './revisionsApi.js';
import './revisions.css';
import { Notice } from '../app/parts/Notice.js';

const NONE: readonly RevisionSummary[] = [];

type Against = 'before' | 'now';

/** Every saved state of the design, what each changed, and the way back to it. */
export function RevisionsPage(): React.JSX.Element {
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const design = useAppSelector((state) => state.document.design);
  const text = useAppSelector((state) => state.document.text);
  const choices = useAppSelector((state) => state.document.choices);
  const isKept = useAppSelector((state) => saveStateOf(state).kind === 'saved');
  const [restoreRevision] = useRestoreRevisionMutation();
  const latest = design?.revision ?? 0;
  const revisions = useListRevisionsInfiniteQuery(latest === 0 ? skipToken : { id, latest });
  const items = revisions.data?.pages.flatMap((page) => page.items) ?? NONE;
  const problem = problemOf(revisions.error)?.detail ?? null;
  const [selected, setSelected] = useState<number | null>(null);
  const [against, setAgainst] = useState<Against>('before');
  const [failed, setFailed] = useState<string | null>(null);
  const chosen = selected ?? items[0]?.number ?? null;
  const shown = useRevision(id, chosen);
  const before = useRevision(id, chosen === null || chosen <= 1 ? null : chosen - 1);
  const restore = async (number: number): Promise<void> => {
    try {
      dispatch(designChanged(await restoreRevision({ id, number, revision: latest }).unwrap()));
      void navigate(`/designs/${id}/model`);
    } catch (error) {
      setFailed(refusalText(error));
    }
  };
  const canRestore = chosen !== null && chosen !== latest && isKept;
  const other = against === 'now' ? { text, choices } : (before ?? { text: '', choices: null });
  return (
    <SplitPanels name="revisions" first={420}>
      <section className="panel" aria-label="Revisions">
        <header className="panel-head">
          <h2>Revisions</h2>
          <span className="quiet">every saved state, latest first</span>
        </header>
        {(problem ?? failed) !== null && <Notice>{problem ?? failed}</Notice>}
        <RevisionHead />
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
        {revisions.hasNextPage && (
          <button type="button" className="text-button older" onClick={() => void revisions.fetchNextPage()}>
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
            <Explained by="revisions.latest">
              <Button
                type="primary"
                ghost
                disabled={!canRestore}
                onClick={() => chosen !== null && void restore(chosen)}
              >
                Make this the latest
              </Button>
            </Explained>
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

function RevisionHead(): React.JSX.Element {
  return (
    <div className="revision-row revision-head quiet">
      <span className="number">number</span>
      <span>saved</span>
      <span>what</span>
      <ExplainedWords by="revisions.lines">lines</ExplainedWords>
    </div>
  );
}

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

/** One revision with its text; `null` until it is read. */
function useRevision(id: string, number: number | null): Revision | null {
  const { currentData } = useReadRevisionQuery(number === null ? skipToken : { id, number });
  return currentData ?? null;
}
