import { indexContract, type Finding, type Operation } from '@isomeros/core/contract';
import type { ReactNode } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { useAppSelector } from '../app/store.js';
import { releasesOf } from '../design/releases.js';
import { useContract } from '../design/useContract.js';
import { ExplainedAction } from '../app/help/Explained.js';
import { ApiPage } from './ApiPage.js';
import { OperationGrid } from './OperationGrid.js';
import { OperationPage } from './OperationPage.js';
import { PublicationsPage } from './PublicationsPage.js';
import { ReleasePage } from './ReleasePage.js';
import { Releases } from './Releases.js';
import './contract.css';
import { FindingGroups } from '../findings/FindingGroups.js';
import { isBehindText } from '../design/behindText.js';
import { Notice } from '../app/parts/Notice.js';

const NOWHERE = {};
const NO_FINDINGS: readonly Finding[] = [];

/** What the team signs: every path and operation, and one of them in full. */
export function ContractPage(): React.JSX.Element {
  const { id = '' } = useParams();
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const places = useAppSelector((state) => state.derived.reading?.places ?? NOWHERE);
  const text = useAppSelector((state) => state.document.text);
  const review = useAppSelector((state) => state.derived.review);
  const broken = useAppSelector(isBehindText);
  const label = search.get('release');
  const published = search.get('published');
  const release = useAppSelector((state) => releasesOf(state, id).find((one) => one.label === label));
  const contract = useContract();
  if (contract === null) {
    return (
      <section className="panel">
        <p className="empty-note">
          {broken ? 'The text of the model has errors, so there is no contract yet.' : 'Deriving.'}
        </p>
      </section>
    );
  }
  const { operations } = indexContract(contract);
  const selected = operations.get(search.get('operation') ?? '') ?? contract.operations[0];
  const select = (operation: Operation): void => {
    setSearch({ operation: operation.id }, { replace: true });
  };
  const findings = review?.findings ?? NO_FINDINGS;
  const onStatement = (line: number): void => void navigate(`/designs/${id}/model?line=${line}`);
  return (
    <SplitPanels name="contract" first={540}>
      <section className="panel" aria-label="Sheet">
        <Sheet findings={findings} onStatement={onStatement}>
          <OperationGrid
            contract={contract}
            findings={findings}
            selected={search.has('about') || published !== null ? undefined : selected}
            onSelect={select}
          />
          {broken && <Notice>The text has errors; this is the contract of the last text without.</Notice>}
        </Sheet>
        <Releases
          selected={release?.label ?? null}
          onSelect={(chosen) => setSearch({ release: chosen }, { replace: true })}
        />
        <Publish
          onPublished={() => setSearch({ published: '' })}
          onAbout={() => setSearch({ about: 'api' })}
        />
      </section>
      {published !== null ? (
        <PublicationsPage
          design={id}
          release={published === '' ? null : published}
          onRelease={(chosen) => setSearch({ published: chosen ?? '' }, { replace: true })}
          onClose={() => setSearch({}, { replace: true })}
        />
      ) : search.has('about') ? (
        <ApiPage
          contract={contract}
          onOperation={(operation) => setSearch({ operation })}
          onClose={() => setSearch({}, { replace: true })}
        />
      ) : release !== undefined ? (
        <ReleasePage
          key={release.label}
          design={id}
          release={release}
          onStatement={onStatement}
          onPublished={() => setSearch({ published: release.label })}
          onClose={() => setSearch({}, { replace: true })}
        />
      ) : selected === undefined ? (
        <section className="panel" />
      ) : (
        <OperationPage
          key={selected.id}
          contract={contract}
          operation={selected}
          places={places}
          text={text}
          onStatement={onStatement}
          onOperation={(operation) => setSearch({ operation }, { replace: false })}
          onOpenInMock={(message) => void navigate(`/designs/${id}/mock`, { state: { message } })}
        />
      )}
    </SplitPanels>
  );
}

interface PublishProps {
  readonly onPublished: () => void;
  readonly onAbout: () => void;
}

/** The ways to the published documents, and to what they say of the API as a whole. */
const Publish = ({ onPublished, onAbout }: PublishProps): React.JSX.Element => (
  <footer className="publish">
    <ExplainedAction by="contract.published" onPress={onPublished}>
      Published documents
    </ExplainedAction>
    <span className="end">
      <ExplainedAction by="contract.api" onPress={onAbout}>
        About the API
      </ExplainedAction>
    </span>
  </footer>
);

interface SheetProps {
  readonly findings: readonly Finding[];
  readonly onStatement: (line: number) => void;
  readonly children: ReactNode;
}

/** The operations, and under a rule that can be dragged what is found in them. */
function Sheet({ findings, onStatement, children }: SheetProps): React.JSX.Element {
  const operations = <div className="sheet-operations">{children}</div>;
  if (findings.length === 0) return operations;
  return (
    <div className="sheet-split">
      <SplitPanels name="sheet" first={FIRST_SHEET} direction="vertical">
        {operations}
        <ul className="sheet-findings questions" aria-label="Findings" tabIndex={0}>
          <FindingGroups findings={findings} onStatement={onStatement} />
        </ul>
      </SplitPanels>
    </div>
  );
}

const FIRST_SHEET = 500;
