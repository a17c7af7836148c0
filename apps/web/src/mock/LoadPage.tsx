import type { LoadSecond, Mock } from '@isomeros/api';
import { useMemo } from 'react';
import { amount } from '../app/parts/amount.js';
import { countOf, LOAD_EVERY_MS } from './LoadFact.js';
import { loadCharts } from './loadCharts.js';
import { useReadLoadQuery } from './mocksApi.js';
import { TimeChart } from './TimeChart.js';

/** Ten minutes. */
const SECONDS = 600;
const NONE: readonly LoadSecond[] = [];

/** What a mock answered lately: how much, with what status, how fast, and what it took. */
export function LoadPage({ mock }: { readonly mock: Mock }): React.JSX.Element {
  const { data = NONE, isSuccess } = useReadLoadQuery(
    { mock: mock.id, seconds: SECONDS },
    { pollingInterval: LOAD_EVERY_MS, skipPollingIfUnfocused: true },
  );
  const charts = useMemo(() => loadCharts(data, Date.now()), [data]);
  const all = data.reduce((sum, second) => sum + countOf(second), 0);
  return (
    <section className="panel load-page" aria-label="Load">
      <header className="panel-head">
        <h2>Load</h2>
        <span className="quiet">{amount(all, 'answer')} in the last ten minutes, second by second</span>
      </header>
      {isSuccess && all === 0 ? (
        <p className="empty-note">
          Nothing was answered in the last ten minutes. Call the base URL from any client, and the load shows
          up here.
        </p>
      ) : (
        <div className="load-charts">
          {charts.map((chart) => (
            <TimeChart key={chart.title} chart={chart} />
          ))}
        </div>
      )}
    </section>
  );
}
