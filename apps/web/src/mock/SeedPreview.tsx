import type { Shortfall } from '@isomeros/core/seeding';
import { amount } from '../app/parts/amount.js';
import type { SeedPreviewState } from './useSeedPreview.js';

interface Props {
  readonly state: SeedPreviewState;
  readonly onCancel: () => void;
}

/** How many records of each type a plan would give, and where it cannot be met. */
export function SeedPreviewView({ state, onCancel }: Props): React.JSX.Element | null {
  switch (state.kind) {
    case 'none':
      return null;
    case 'failed':
      return (
        <p className="wrong" role="alert">
          {state.why}
        </p>
      );
    case 'making':
      return (
        <p className="quiet seed-preview" role="status">
          {state.isLong ? 'Records are being made to count them. ' : ''}
          {state.isLong && (
            <button type="button" className="text-button" onClick={onCancel}>
              Cancel
            </button>
          )}
        </p>
      );
    case 'made': {
      const { types, shortfalls, overflows } = state.preview;
      const all = types.reduce((sum, { records }) => sum + records, 0);
      return (
        <div className="seed-preview" role="status">
          <p>
            Would give {amount(all, 'record')}
            {overflows && <span className="wrong">, and more than a mock holds</span>}:{' '}
            {types.map(({ name, records }, place) => (
              <span key={name}>
                {place > 0 && ', '}
                {name} <span className="strong">{records}</span>
              </span>
            ))}
          </p>
          {shortfalls.map((shortfall) => (
            <p key={shortfall.entity} className="shortfall">
              {shortfallText(shortfall)}
            </p>
          ))}
        </div>
      );
    }
  }
}

/** Why there are fewer records than wanted. */
export const shortfallText = ({ entity, wanted, made, why }: Shortfall): string =>
  `${entity}: ${made} of ${wanted}. ${why}`;
