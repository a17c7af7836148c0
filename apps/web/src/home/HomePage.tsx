import { useState } from 'react';
import { useNavigate } from 'react-router';
import { TopBar } from '../app/frame/TopBar.js';
import type { Command } from '../app/frame/commands.js';
import { StageNav } from '../app/frame/StageNav.js';
import { STAGE_DESCRIPTIONS } from '../app/frame/stageDescriptions.js';
import '../app/frame/frame.css';
import type { Mock, Sample } from '@isomeros/api';
import { problemOf } from '../app/api/client.js';
import { useListMocksQuery } from '../mock/mocksApi.js';
import { BeginPanel } from './BeginPanel.js';
import { useListDesignsQuery, useListSamplesQuery } from './designsApi.js';
import { DesignList } from './DesignList.js';
import { Onboarding } from './Onboarding.js';
import './home.css';
import { amount } from '../app/parts/amount.js';

const NO_SAMPLES: readonly Sample[] = [];
const NO_MOCKS: readonly Mock[] = [];

/** The designs there are, and how to begin another. */
export function HomePage(): React.JSX.Element {
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  const current = { refetchOnMountOrArgChange: true, refetchOnFocus: true };
  const { data: items = null, error } = useListDesignsQuery(typed, current);
  const { data: samples = NO_SAMPLES } = useListSamplesQuery(null);
  const { data: mocks = NO_MOCKS } = useListMocksQuery(null, current);
  const running = mocks.filter((mock) => mock.running).length;
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
          mocks={mocks}
          problem={problemOf(error)}
          onOpen={open}
          typed={typed}
          onType={setTyped}
        />
        <BeginPanel samples={samples} onBegun={open} />
        <Onboarding />
      </main>
    </div>
  );
}
