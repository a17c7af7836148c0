import { Button } from 'antd';
import { FirstRecordsChoice } from './FirstRecordsChoice.js';
import { useState } from 'react';
import { useAppSelector } from '../app/store.js';
import { releasesOf } from '../design/releases.js';
import { isBehindText } from '../design/behindText.js';

interface Props {
  readonly problem: string | null;
  /** `releases`: labels of those that are to be served, too. */
  readonly onStart: (releases: readonly string[], initialRecords: boolean) => void;
}

/** What stands here before there is a mock. */
export function StartMock({ problem, onStart }: Props): React.JSX.Element {
  const outline = useAppSelector((state) => state.derived.outline);
  const broken = useAppSelector(isBehindText);
  const releases = useAppSelector((state) => releasesOf(state, state.document.id ?? ''));
  const [wanted, setWanted] = useState<ReadonlySet<string>>(new Set());
  const initial = useAppSelector((state) => state.document.design?.initialRecords ?? 0);
  const [begins, setBegins] = useState(true);
  const want = (label: string, isWanted: boolean): void => {
    setWanted(new Set([...[...wanted].filter((other) => other !== label), ...(isWanted ? [label] : [])]));
  };
  return (
    <section className="panel">
      <div className="mock-start">
        <h2>No mock yet</h2>
        <p>
          A mock serves the whole contract from records of its own: checked against the model, and kept in the
          database before any write is answered. It listens on this machine only.
        </p>
        {releases.length > 0 && (
          <fieldset className="mock-releases">
            <legend>Serve releases, too: from the same records, as long as these satisfy both models</legend>
            {releases.map(({ label }) => (
              <label key={label}>
                <input
                  type="checkbox"
                  checked={wanted.has(label)}
                  onChange={({ target }) => {
                    want(label, target.checked);
                  }}
                />{' '}
                {label}
              </label>
            ))}
          </fieldset>
        )}
        {initial > 0 && (
          <div className="first-records">
            <FirstRecordsChoice initial={initial} begins={begins} onBegins={setBegins} />
          </div>
        )}
        <Button
          type="primary"
          size="middle"
          disabled={outline === null}
          onClick={() => {
            onStart([...wanted], initial > 0 && begins);
          }}
        >
          Start the mock
        </Button>
        {broken && outline !== null && (
          <p className="quiet">The text has errors; the last text without them is served.</p>
        )}
        {problem !== null && (
          <p className="wrong" role="alert">
            {problem}
          </p>
        )}
      </div>
    </section>
  );
}
