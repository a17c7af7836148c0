import { PARTIES, type ChangeSinceRelease, type Compatibility } from '@isomeros/core/comparison';
import { useCallback, useState } from 'react';
import type { Release } from '@isomeros/api';
import { amount } from '../app/parts/amount.js';
import { grouped } from '../app/parts/grouped.js';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import { useAppSelector } from '../app/store.js';
import { useAsked, type Ask } from '../design/derivation/useAsked.js';
import { CauseRow } from '../findings/CauseRow.js';
import { ReleaseHead } from './ReleaseHead.js';

interface Props {
  readonly design: string;
  readonly release: Release;
  readonly onStatement: (line: number) => void;
  /** To its published documents. */
  readonly onPublished: () => void;
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
export function ReleasePage({
  design,
  release,
  onStatement,
  onPublished,
  onClose,
}: Props): React.JSX.Element {
  const changes = useChanges(release.label);
  return (
    <section className="panel release-page" aria-label={`Release ${release.label}`}>
      <ReleaseHead design={design} release={release} onPublished={onPublished} onClose={onClose} />
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
                  {[...grouped(alike, ({ cause }) => JSON.stringify(cause))].map(([key, ofCause]) => (
                    <ChangeGroup key={key} changes={ofCause} severity={weight} onStatement={onStatement} />
                  ))}
                </ul>
              </section>
            );
          })}
      </div>
    </section>
  );
}

interface GroupProps {
  /** Changes that come from one decision, or from none. */
  readonly changes: readonly ChangeSinceRelease[];
  readonly severity: Compatibility;
  readonly onStatement: (line: number) => void;
}

/** What comes from one decision is one thing, until somebody looks closer. */
function ChangeGroup({ changes, severity, onStatement }: GroupProps): React.JSX.Element {
  const cause = changes.length > 1 ? (changes[0]?.cause ?? null) : null;
  const [isUnfolded, setUnfolded] = useState(cause === null);
  const places = new Set(changes.map(({ resource }) => resource)).size;
  return (
    <>
      {cause !== null && (
        <CauseRow
          cause={cause}
          severity={severity}
          what={`${amount(changes.length, 'change')} at ${amount(places, 'path')}`}
        />
      )}
      {isUnfolded ? (
        changes.map((change) => (
          <ChangeRow key={`${change.where} ${change.message}`} change={change} onStatement={onStatement} />
        ))
      ) : (
        <li>
          <button type="button" className="text-button" onClick={() => setUnfolded(true)}>
            Show all {changes.length}
          </button>
        </li>
      )}
    </>
  );
}

interface ChangeProps {
  readonly change: ChangeSinceRelease;
  readonly onStatement: (line: number) => void;
}

function ChangeRow({ change, onStatement }: ChangeProps): React.JSX.Element {
  const places = useAppSelector((state) => state.derived.reading?.places ?? NOWHERE);
  const text = useAppSelector((state) => state.document.text);
  const [asksWhy, setAsksWhy] = useState(false);
  return (
    <li>
      {change.affects !== null && <span className="quiet">{PARTIES[change.affects]}</span>}
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
function useChanges(label: string): readonly ChangeSinceRelease[] | null {
  const review = useAppSelector((state) => state.derived.review);
  const ask = useCallback<Ask<readonly ChangeSinceRelease[] | null>>(
    (derivation) => derivation.changesSince(label),
    [label],
  );
  return useAsked(ask, review);
}
