import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import type { Release, ReleaseEnd } from '@isomeros/api';
import { useAppSelector } from '../app/store.js';
import { releasesOf } from '../design/releases.js';

interface Props {
  readonly release: Release;
  readonly onEnd: (end: ReleaseEnd | null) => void;
}

const NOTHING = '';
const DAY = /^\d{4}-\d{2}-\d{2}$/;

const dayOf = (instant: string | null | undefined): string => instant?.slice(0, 10) ?? '';

/** Which of releases and arrangements a value of the choice means. */
function successorOf(value: string): ReleaseEnd['successor'] {
  const [kind, ...name] = value.split(' ');
  if (value === NOTHING) return null;
  return kind === 'release' ? { release: name.join(' ') } : { arrangement: name.join(' ') };
}

const valueOf = (successor: ReleaseEnd['successor']): string => {
  if (successor === null) return NOTHING;
  return 'release' in successor ? `release ${successor.release}` : `arrangement ${successor.arrangement}`;
};

/** From when a release is not to be used any more, when it stops, and what comes after it: mocks say so in each answer. */
export function ReleaseEndForm({ release, onEnd }: Props): React.JSX.Element {
  const { end, label } = release;
  const releases = useAppSelector((state) => releasesOf(state, state.document.id ?? ''));
  const arrangements = useAppSelector((state) => state.document.choices.arrangements);
  const [deprecated, setDeprecated] = useState(dayOf(end?.deprecatedAt));
  const [sunset, setSunset] = useState(dayOf(end?.sunsetAt));
  const [successor, setSuccessor] = useState(valueOf(end?.successor ?? null));
  const options = [
    { value: NOTHING, label: 'nothing' },
    ...releases
      .filter((other) => other.label !== label)
      .map((other) => ({ value: `release ${other.label}`, label: `release ${other.label}` })),
    ...arrangements.map(({ name }) => ({ value: `arrangement ${name}`, label: name })),
  ];
  const isComplete = DAY.test(deprecated) && (sunset === '' || DAY.test(sunset));
  return (
    <form
      className="release-end"
      aria-label="End of the release"
      onSubmit={(event) => {
        event.preventDefault();
        onEnd({
          deprecatedAt: `${deprecated}T00:00:00Z`,
          sunsetAt: sunset === '' ? null : `${sunset}T00:00:00Z`,
          successor: successorOf(successor),
        });
      }}
    >
      <label>
        Deprecated from
        <Input
          type="date"
          value={deprecated}
          onChange={({ target }) => {
            setDeprecated(target.value);
          }}
        />
      </label>
      <label>
        Stops on
        <Input
          type="date"
          value={sunset}
          onChange={({ target }) => {
            setSunset(target.value);
          }}
        />
      </label>
      <label>
        After it comes
        <Select
          aria-label="After it comes"
          value={successor}
          onChange={setSuccessor}
          options={options}
          style={{ width: 130 }}
        />
      </label>
      <Button htmlType="submit" disabled={!isComplete}>
        Announce
      </Button>
      {end !== null && (
        <Button
          onClick={() => {
            onEnd(null);
          }}
        >
          Not deprecated
        </Button>
      )}
    </form>
  );
}
