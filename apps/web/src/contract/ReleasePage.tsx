import type { Change, Weight } from '@isomeros/core/comparison';
import { Button } from 'antd';
import { useEffect, useState } from 'react';
import { api, refusal } from '../app/api/client.js';
import type { Release } from '../app/api/types.js';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { derivationClient } from '../design/derivationClient.js';
import { loadReleases } from '../design/releasesSlice.js';

interface Props {
  readonly design: string;
  readonly release: Release;
  readonly onStatement: (line: number) => void;
  /** Back to the operations. */
  readonly onClose: () => void;
}

const WEIGHTS: readonly { readonly weight: Weight; readonly title: string; readonly means: string }[] = [
  { weight: 'breaking', title: 'Breaking', means: 'somebody who relies on it is let down' },
  { weight: 'compatible', title: 'Compatible', means: 'there is more than before' },
  { weight: 'cosmetic', title: 'Cosmetic', means: 'nothing of it travels' },
];

/** A release, and everything that has changed since, with why. */
export function ReleasePage({ design, release, onStatement, onClose }: Props): React.JSX.Element {
  const dispatch = useAppDispatch();
  const changes = useChanges(release.label);
  const isHeld = useAppSelector(({ releases }) =>
    releases.held.releases.some(({ label }) => label === release.label),
  );
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    if (!isHeld) void dispatch(loadReleases({ design, label: release.label }));
  }, [isHeld, design, release.label, dispatch]);
  const base = `/api/designs/${design}/releases/${release.label}`;
  const takeBack = async (): Promise<void> => {
    try {
      await api.removeRelease(design, release.label);
      const loaded = await dispatch(loadReleases({ design }));
      if (loadReleases.rejected.match(loaded)) setProblem(loaded.error.message ?? 'It was taken back.');
      else onClose();
    } catch (error) {
      setProblem(refusal(error));
    }
  };
  const made = new Date(release.madeAt).toLocaleString(undefined, {
    dateStyle: 'medium',
    timeStyle: 'short',
  });
  return (
    <section className="panel release-page" aria-label={`Release ${release.label}`}>
      <header className="operation-head">
        <div className="title">
          <h2>Release {release.label}</h2>
          <span className="quiet">{made}</span>
          <span className="end">
            <button type="button" className="text-button" onClick={onClose}>
              Back to the operations
            </button>
          </span>
        </div>
        <p className="summary">
          Arrangement {release.arrangement}, version {release.version}, revision {release.revision}:{' '}
          {release.operations} operations. It never changes.
        </p>
        <div className="release-links">
          <a href={`${base}/openapi.json`} target="_blank" rel="noreferrer">
            OpenAPI 3.1, JSON
          </a>
          <a href={`${base}/openapi.yaml`} target="_blank" rel="noreferrer">
            YAML
          </a>
          <Button size="small" onClick={() => void takeBack()}>
            Take it back
          </Button>
        </div>
      </header>
      <div className="panel-body">
        {problem !== null && (
          <div className="notice bad" role="alert">
            {problem}
          </div>
        )}
        {changes === null && <p className="empty-note">Comparing.</p>}
        {changes?.length === 0 && <p className="empty-note">Nothing has changed since.</p>}
        {changes !== null &&
          WEIGHTS.map(({ weight, title, means }) => {
            const alike = changes.filter((change) => change.weight === weight);
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
  readonly change: Change;
  readonly onStatement: (line: number) => void;
}

function ChangeRow({ change, onStatement }: ChangeProps): React.JSX.Element {
  const { derived, text } = useAppSelector((state) => state.design);
  const [asksWhy, setAsksWhy] = useState(false);
  return (
    <li>
      {change.breaks !== null && (
        <span className="quiet">{change.breaks === 'sender' ? 'senders' : 'readers'}</span>
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
        <ReasonTrail
          reasons={change.reasons}
          places={derived?.places ?? {}}
          text={text}
          onStatement={onStatement}
        />
      )}
    </li>
  );
}

/** What changed since a release, kept current; `null` until it is known. */
function useChanges(label: string): readonly Change[] | null {
  const reviewed = useAppSelector((state) => state.design.reviewed);
  const [known, setKnown] = useState<{ label: string; changes: readonly Change[] | null } | null>(null);
  useEffect(() => {
    let isWanted = true;
    void derivationClient.changesSince(label).then((changes) => {
      if (isWanted) setKnown({ label, changes });
    });
    return () => {
      isWanted = false;
    };
  }, [label, reviewed]);
  return known?.label === label ? known.changes : null;
}
