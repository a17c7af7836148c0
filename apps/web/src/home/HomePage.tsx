import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { TopBar } from '../app/frame/TopBar.js';
import type { Command } from '../app/frame/commands.js';
import { StageNav } from '../app/frame/StageNav.js';
import { STAGE_DESCRIPTIONS } from '../app/frame/stageDescriptions.js';
import '../app/frame/frame.css';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { loadMocks } from '../mock/mocksSlice.js';
import { BeginPanel } from './BeginPanel.js';
import { loadDesigns } from './designsSlice.js';
import { DesignList } from './DesignList.js';
import { Onboarding } from './Onboarding.js';
import './home.css';
import { amount } from '../app/parts/amount.js';

/** The designs there are, and how to begin another. */
export function HomePage(): React.JSX.Element {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { items, samples, problem } = useAppSelector((state) => state.designs);
  const mocks = useAppSelector((state) => state.mocks.byId);
  const [typed, setTyped] = useState('');
  useEffect(() => {
    const load = (): void => {
      void dispatch(loadDesigns(typed));
      void dispatch(loadMocks());
    };
    load();
    window.addEventListener('focus', load);
    return () => {
      window.removeEventListener('focus', load);
    };
  }, [dispatch, typed]);
  const running = Object.values(mocks).filter((mock) => mock.running).length;
  const open = (id: string): void => void navigate(`/designs/${id}/model`);
  const commands = (): Command[] =>
    (items ?? []).map(({ id, name }) => ({
      label: name,
      kind: 'design',
      run: () => {
        open(id);
      },
    }));
  return (
    <div className="frame">
      <TopBar
        title="Designs"
        note={running === 0 ? undefined : `${amount(running, 'mock')} running`}
        commands={commands}
      />
      <StageNav stages={STAGE_DESCRIPTIONS} />
      <main className="home">
        <DesignList
          items={items}
          mocks={Object.values(mocks)}
          problem={problem}
          onOpen={open}
          onChanged={() => void dispatch(loadDesigns(typed))}
          typed={typed}
          onType={setTyped}
        />
        <BeginPanel samples={samples} onBegun={open} />
        <Onboarding />
      </main>
    </div>
  );
}
