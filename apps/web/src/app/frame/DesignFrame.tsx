import { useEffect, useMemo } from 'react';
import { shallowEqual } from 'react-redux';
import { Link, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { AS_OF_VALID, isBehindText } from '../../design/behindText.js';
import { openDesign } from '../../design/documentSlice.js';
import { saveStateOf } from '../../design/savingSlice.js';
import { useComparedReleases } from '../../design/useComparedReleases.js';
import { arrangementName } from '../../design/viewSlice.js';
import { useFollowMockQuery } from '../../mock/followMock.js';
import { useListMocksQuery } from '../../mock/mocksApi.js';
import { useSelectedEndpoint } from '../../mock/useSelectedEndpoint.js';
import { skipToken } from '@reduxjs/toolkit/query';
import { useAppDispatch, useAppSelector, useAppStore } from '../store.js';
import { ArrangementChooser } from './ArrangementChooser.js';
import { TopBar } from './TopBar.js';
import { ConflictNotice } from './ConflictNotice.js';
import { designCommands } from './designCommands.js';
import { SaveStatus } from './SaveStatus.js';
import { stageAddress, STAGES } from '../../stages/index.js';
import { StageNav, type StageLink } from './StageNav.js';
import './frame.css';
import { Notice } from '../parts/Notice.js';

/** The frame around the stages of one design; it keeps the design, its contract and its mock current. */
export function DesignFrame(): React.JSX.Element {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const store = useAppStore();
  const missing = useAppSelector(({ document }) => document.problem);
  const isOpen = useAppSelector(({ document }) => document.design?.id === id);
  const title = useAppSelector(
    ({ derived, document }) => derived.outline?.title ?? document.design?.name ?? '',
  );
  const hasArrangement = useAppSelector((state) => arrangementName(state) !== '');
  useListMocksQuery(null, { refetchOnMountOrArgChange: true });
  const { endpoint } = useSelectedEndpoint(id);
  useFollowMockQuery(endpoint?.mock.id ?? skipToken);
  useComparedReleases(id);
  useEffect(() => {
    void dispatch(openDesign(id));
  }, [id, dispatch]);
  return (
    <div className="frame">
      <TopBar
        title={title}
        chooser={missing === null && isOpen && hasArrangement && <ArrangementChooser />}
        keeping={<SaveStatus revisions={`/designs/${id}/revisions`} />}
        commands={() =>
          designCommands(store.getState().derived, id, stageViews(id), (to) => void navigate(to))
        }
      />
      <Stages design={id} isMissing={missing !== null} />
      <main className="of-design">
        {missing !== null && (
          <p className="empty-note">
            {missing.detail} <Link to="/">Go to the designs</Link>
          </p>
        )}
        {missing === null && isOpen && (
          <>
            <Notices id={id} />
            <NextStep />
            <Outlet />
          </>
        )}
      </main>
    </div>
  );
}

/** What stands in the way of the work, whatever the stage. */
function Notices({ id }: { readonly id: string }): React.JSX.Element {
  const isConflict = useAppSelector((state) => saveStateOf(state).kind === 'conflict');
  const failure = useAppSelector(({ derived }) => derived.failure);
  return (
    <>
      {isConflict && <ConflictNotice id={id} />}
      {failure !== null && (
        <Notice>
          The contract of this text could not be derived: {failure} The text is kept as it is; what is shown
          follows from the one before.
        </Notice>
      )}
    </>
  );
}

/** What to do next at the stage that is open; nothing once a design has grown. */
function NextStep(): React.JSX.Element | null {
  const { pathname } = useLocation();
  const entities = useAppSelector(({ derived }) => derived.review?.figures.entities ?? null);
  const stage = STAGES.find(({ path }) => pathname.endsWith(`/${path}`));
  return stage === undefined || entities === null || entities > 1 ? null : (
    <p className="next-step">{stage.next}</p>
  );
}

const stageViews = (id: string): readonly (readonly [string, string])[] =>
  STAGES.map((stage) => [stage.name, stageAddress(stage, id)]);

interface StagesProps {
  readonly design: string;
  readonly isMissing: boolean;
}

/** The stages with their live figures. */
function Stages({ design, isMissing }: StagesProps): React.JSX.Element {
  const figures = useAppSelector((state) => STAGES.map(({ figure }) => figure(state, design)), shallowEqual);
  const isBehind = useAppSelector(isBehindText);
  const stages = useMemo(
    () =>
      STAGES.map((stage, index): StageLink => ({
        number: index + 1,
        name: stage.name,
        figure: figures[index] ?? '',
        to: stageAddress(stage, design),
      })),
    [figures, design],
  );
  return <StageNav stages={isMissing ? [] : stages} note={isBehind ? AS_OF_VALID : null} />;
}
