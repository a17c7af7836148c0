import type { LoadSecond, Mock } from '@isomeros/api';
import { Explained } from '../app/help/Explained.js';
import { useReadLoadQuery } from './mocksApi.js';

/** It is asked so often what was answered. */
export const LOAD_EVERY_MS = 1_000;

const SECONDS = 60;
const BARS = 20;
const HEIGHT = 14;
const WIDTH = 3;
const NONE: readonly LoadSecond[] = [];

interface Props {
  readonly mock: Mock;
  readonly isShown: boolean;
  readonly onShow: () => void;
}

/** How much the mock answered in the last minute, as a row of bars and a number. */
export function LoadFact({ mock, isShown, onShow }: Props): React.JSX.Element {
  const { data = NONE } = useReadLoadQuery(
    { mock: mock.id, seconds: SECONDS },
    { pollingInterval: LOAD_EVERY_MS, skipPollingIfUnfocused: true },
  );
  const bars = barsOf(data, Date.now());
  const most = bars.reduce((high, count) => Math.max(high, count), 1);
  return (
    <div className="fact">
      <span className="label">Load, a minute</span>
      <span>
        <svg className="load-bars" width={BARS * WIDTH} height={HEIGHT} aria-hidden>
          {bars.map((count, place) => {
            const height = count === 0 ? 1 : Math.max(2, (count / most) * HEIGHT);
            return (
              <rect
                key={place}
                x={place * WIDTH}
                y={HEIGHT - height}
                width={WIDTH - 1}
                height={height}
                className={count === 0 ? 'none' : ''}
              />
            );
          })}
        </svg>{' '}
        {rateText(data, Date.now())}
        <Explained by="mock.load">
          <button type="button" className="text-button" onClick={onShow}>
            {isShown ? 'Exchanges' : 'Load'}
          </button>
        </Explained>
      </span>
    </div>
  );
}

export const countOf = ({ answered }: LoadSecond): number => answered.reduce((sum, count) => sum + count, 0);

const secondOf = ({ at }: LoadSecond): number => Date.parse(at) / 1_000;

/** How many were answered in each slice of the last minute, oldest first. `now`: milliseconds since 1970. */
function barsOf(seconds: readonly LoadSecond[], now: number): readonly number[] {
  const slice = SECONDS / BARS;
  const first = Math.floor(now / 1_000) - SECONDS + 1;
  const bars = Array.from({ length: BARS }, () => 0);
  for (const second of seconds) {
    const place = Math.floor((secondOf(second) - first) / slice);
    if (place >= 0 && place < BARS) bars[place] = (bars[place] ?? 0) + countOf(second);
  }
  return bars;
}

/** A few seconds, since one alone jumps about. */
const RATE_SECONDS = 5;

function rateText(seconds: readonly LoadSecond[], now: number): string {
  const last = Math.floor(now / 1_000);
  const lately = seconds.filter((second) => {
    const ago = last - secondOf(second);
    return ago >= 1 && ago <= RATE_SECONDS;
  });
  const rate = lately.reduce((sum, second) => sum + countOf(second), 0) / RATE_SECONDS;
  return `${rate === 0 || rate >= 10 ? Math.round(rate) : rate.toFixed(1)}/s`;
}
