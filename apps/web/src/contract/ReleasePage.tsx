import type { ContractChange, Compatibility } from '@isomeros/core/comparison';
import { useCallback, useState } from 'react';
import type { Release } from '@isomeros/api';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import { useAppSelector } from '../app/store.js';
import { useAsked, type Ask } from '../design/derivation/useAsked.js';
import { ReleaseHead } from './ReleaseHead.js';

interface Props {
  readonly design: string;
  readonly release: Release;
  readonly onStatement: (line: number) => void;
  /** Back to the operations. */
  readonly onClose: () => void;
}

const NOWHERE = {};

const WEIGHTS: readonly { readonly weight: Compatibility; readonly title: string; readonly means: string }[] =
  [
    { weight: 'breaking', title: 'Breaking', means: 'somebody who relies on it is let down' },
    { weight: 'compatible', title: 'Compatible', means: 'there is more than before' },
    { weight: 'cosmetic', title: 'Cosmetic', means: 'nothing of it travels' },
  ];

/** A release, and everything that has changed since, with why. */
export function ReleasePage({ design, release, onStatement, onClose }: Props): React.JSX.Element {
  const changes = useChanges(release.label);
  return (
    <section className="panel release-page" aria-label={`Release ${release.label}`}>
      <ReleaseHead design={design} release={release} onClose={onClose} />
      <div className="panel-body">
        {changes === null && <p className="empty-note">Comparing.</p>}
        {changes?.length === 0 && <p className="empty-note">Nothing has changed since.</p>}
        {changes !== null &&
          WEIGHTS.map(({ weight, title, means }) => {
            const alike = changes.filter((change) => change.compatibility === weight);
            if (alike.length === 0) return null;
            return (
              <section key={weight} aria-label={title} className="changes">
                <h3>
                  {alike.length} {title.toLowerCase()} <span className="quiet">{means}</span>
                </h3>
                <ul>
                  {alike.map((change) => (
                    <ChangeRow
                      key={`${change.where} ${change.message}`}
                      change={change}
                      onStatement={onStatement}
                    />
                  ))}
                </ul>
              </section>
            );
          })}
      </div>
    </section>
  );
}

interface ChangeProps {
  readonly change: ContractChange;
  readonly onStatement: (line: number) => void;
}

function ChangeRow({ change, onStatement }: ChangeProps): React.JSX.Element {
  const places = useAppSelector((state) => state.derived.reading?.places ?? NOWHERE);
  const text = useAppSelector((state) => state.document.text);
  const [asksWhy, setAsksWhy] = useState(false);
  return (
    <li>
      {change.affects !== null && (
        <span className="quiet">{change.affects === 'sender' ? 'senders' : 'readers'}</span>
      )}
      <button
        type="button"
        className="plain-button"
        aria-expanded={asksWhy}
        disabled={change.reasons.length === 0}
        onClick={() => setAsksWhy(!asksWhy)}
      >
        {change.message}
      </button>
      {asksWhy && (
        <ReasonTrail reasons={change.reasons} places={places} text={text} onStatement={onStatement} />
      )}
    </li>
  );
}

/** What changed since a release, kept current; `null` until it is known. */
function useChanges(label: string): readonly ContractChange[] | null {
  const review = useAppSelector((state) => state.derived.review);
  const ask = useCallback<Ask<readonly ContractChange[] | null>>(
    (derivation) => derivation.changesSince(label),
    [label],
  );
  return useAsked(ask, review);
}
