import { findingKey, type Finding } from '@isomeros/core/contract';
import { Segmented } from 'antd';
import { useState } from 'react';
import { Explained } from '../../app/help/Explained.js';
import { amount } from '../../app/parts/amount.js';
import { useAppSelector } from '../../app/store.js';
import { useAsked, type Ask } from '../../design/derivation/useAsked.js';
import type { LinkMap } from '../../design/derivation/linkMap.js';
import { FindingRow } from '../../findings/FindingRow.js';
import { ArrangeViews } from '../ArrangeViews.js';
import { LinkMapView } from './LinkMapView.js';
import { useWay, WayPanel } from './WayPanel.js';
import './linkMap.css';

interface Props {
  readonly onStatement: (line: number) => void;
  /** Shows a resource among the paths. */
  readonly onShow: (resource: string) => void;
}

const NONE: readonly Finding[] = [];
const ENTRY = 'entry';

/** Where a client can go by links alone, from the entry: the graph, the shortest way, and what nothing leads to. */
export function LinkWays({ onStatement, onShow }: Props): React.JSX.Element {
  const outline = useAppSelector((state) => state.derived.outline);
  const review = useAppSelector((state) => state.derived.review?.findings ?? NONE);
  const map = useAsked<LinkMap | null>(ASK, outline);
  const [mode, setMode] = useState<'first' | 'all'>('first');
  const [from, setFrom] = useState(ENTRY);
  const [to, setTo] = useState<string | null>(null);
  const findings = review.filter(({ id }) => id.startsWith('link.'));
  const way = useWay(outline, from, to);
  if (map === null) return <p className="empty-note">The links are being laid out.</p>;
  const begin = map.nodes.some(({ id }) => id === from) ? from : ENTRY;
  const reached = map.nodes.filter(({ requests }) => requests !== null).length;
  return (
    <div className="link-ways">
      <header className="panel-head">
        <ArrangeViews />
        <span>
          <strong>{`${reached} of ${amount(map.nodes.length, 'resource')}`}</strong>{' '}
          <span className="quiet">reached from the entry, by links alone</span>
        </span>
        <span className="end link-legend">
          <span className="quiet">
            <Line kind="" /> always
          </span>
          <span className="quiet">
            <Line kind="sometimes" /> in some states
          </span>
          <span className="quiet">
            <Line kind="chosen" /> the way below
          </span>
          <Explained by="arrange.firstWays">
            <Segmented
              aria-label="Which links"
              value={mode}
              onChange={setMode}
              options={[
                { value: 'first', label: 'first ways' },
                { value: 'all', label: 'all links' },
              ]}
            />
          </Explained>
        </span>
      </header>
      <LinkMapView
        map={map}
        mode={mode}
        from={begin}
        to={to}
        way={way === 'running' ? null : way}
        onChoose={setTo}
        onBegin={setFrom}
        onShow={onShow}
      />
      <div className="link-below">
        <WayPanel map={map} from={begin} to={to} way={way} onFrom={setFrom} onTo={setTo} onShow={onShow} />
        <section className="panel" aria-label="Findings about links">
          <header className="panel-head">
            <h2>{amount(findings.length, 'finding')}</h2>
            <span className="quiet">about where links lead</span>
          </header>
          <div className="panel-body">
            {findings.length === 0 ? (
              <p className="empty-note">Every resource is reached, and none is a dead end.</p>
            ) : (
              <ul className="questions" aria-label="Findings about links">
                {findings.map((finding) => (
                  <FindingRow key={findingKey(finding)} finding={finding} onStatement={onStatement} />
                ))}
              </ul>
            )}
          </div>
        </section>
      </div>
    </div>
  );
}

const ASK: Ask<LinkMap | null> = (derivation) => derivation.linkMap();

const Line = ({ kind }: { readonly kind: string }): React.JSX.Element => (
  <svg width="28" height="6" aria-hidden>
    <line x1="0" y1="3" x2="28" y2="3" className={`link-step ${kind}`} />
  </svg>
);
