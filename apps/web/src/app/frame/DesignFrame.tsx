import { useEffect } from 'react';
import { Link, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { AS_OF_VALID, isBehindText } from '../../design/behindText.js';
import { choicesMade, openDesign, textEdited } from '../../design/designSlice.js';
import { loadReleases } from '../../design/releasesSlice.js';
import { loadMocks } from '../../mock/mocksSlice.js';
import { useSelectedEndpoint } from '../../mock/useSelectedEndpoint.js';
import { useMockEvents } from '../../mock/useMockEvents.js';
import { useAppDispatch, useAppSelector, type RootState } from '../store.js';
import { ArrangementChooser } from './ArrangementChooser.js';
import { TopBar } from './TopBar.js';
import { ConflictNotice } from './ConflictNotice.js';
import { designCommands } from './designCommands.js';
import { SaveStatus } from './SaveStatus.js';
import { stageAddress, STAGES } from '../../stages/index.js';
import { StageNav, type StageLink } from './StageNav.js';
import './frame.css';

/** The frame around the stages of one design; it keeps the design, its contract and its mock current. */
export function DesignFrame(): React.JSX.Element {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const design = useAppSelector((state) => state.design);
  const { endpoint } = useSelectedEndpoint(id);
  const mock = endpoint?.mock ?? null;
  const stages = useAppSelector((state) => stagesOf(state, id));
  const isBehind = useAppSelector(isBehindText);
  useMockEvents(mock?.id ?? null);
  useEffect(() => {
    void dispatch(openDesign(id));
    void dispatch(loadReleases({ design: id }));
    void dispatch(loadMocks());
  }, [id, dispatch]);
  useLeaveWarning(design.keeping.kind === 'waiting' || design.keeping.kind === 'saving');
  const title = design.outline?.title ?? design.design?.name ?? '';
  const missing = design.problem;
  return (
    <div className="frame">
      <TopBar
        title={title}
        chooser={missing === null && design.arrangement !== '' && <ArrangementChooser />}
        keeping={<SaveStatus keeping={design.keeping} revisions={`/designs/${id}/revisions`} />}
        commands={() => designCommands(design, id, stageViews(id), (to) => void navigate(to))}
      />
      <StageNav stages={missing === null ? stages : []} note={isBehind ? AS_OF_VALID : null} />
      <main className="of-design">
        {missing !== null && (
          <p className="empty-note">
            {missing.detail} <Link to="/">Go to the designs</Link>
          </p>
        )}
        {missing === null && design.design?.id === id && (
          <>
            {design.keeping.kind === 'conflict' && (
              <ConflictNotice
                id={id}
                text={design.text}
                onTheirs={({ text, choices }) => {
                  dispatch(textEdited(text));
                  dispatch(choicesMade(choices));
                }}
              />
            )}
            <NextStep />
            <Outlet />
          </>
        )}
      </main>
    </div>
  );
}

/** What to do next at the stage that is open; nothing once a design has grown. */
function NextStep(): React.JSX.Element | null {
  const { pathname } = useLocation();
  const entities = useAppSelector(({ design }) => design.figures?.entities ?? null);
  const stage = STAGES.find(({ path }) => pathname.endsWith(`/${path}`));
  return stage === undefined || entities === null || entities > 1 ? null : (
    <p className="next-step">{stage.next}</p>
  );
}

function useLeaveWarning(unkept: boolean): void {
  useEffect(() => {
    if (!unkept) return;
    const warn = (event: BeforeUnloadEvent): void => {
      event.preventDefault();
    };
    window.addEventListener('beforeunload', warn);
    return () => {
      window.removeEventListener('beforeunload', warn);
    };
  }, [unkept]);
}

const stageViews = (id: string): readonly (readonly [string, string])[] =>
  STAGES.map((stage) => [stage.name, stageAddress(stage, id)]);

let lastStages: { readonly key: string; readonly stages: readonly StageLink[] } | null = null;

/** The live figures of the stages; the same array while none of them changed. */
function stagesOf(state: RootState, id: string): readonly StageLink[] {
  const figures = STAGES.map(({ figure }) => figure(state, id));
  const key = [id, ...figures].join('\n');
  if (lastStages?.key !== key) {
    const stages = STAGES.map((stage, index) => ({
      number: index + 1,
      name: stage.name,
      figure: figures[index] ?? '',
      to: stageAddress(stage, id),
    }));
    lastStages = { key, stages };
  }
  return lastStages.stages;
}
