import type { IntakeCount } from '@isomeros/core/intake';
import { singular } from '@isomeros/core/model';
import { Checkbox, Input } from 'antd';
import { Explained } from '../app/help/Explained.js';
import { amount } from '../app/parts/amount.js';

interface Props {
  readonly counts: readonly IntakeCount[];
  /** How many records fit the model. */
  readonly records: number;
  /** Whether mocks are to begin with them. */
  readonly seeds: boolean;
  readonly onSeeds: (seeds: boolean) => void;
  readonly typed: string;
  readonly onType: (typed: string) => void;
}

/** What became of everything that the source declares: the rest was understood. Beside it the report is narrowed by typing. */
export function IntakeCounts({ counts, records, seeds, onSeeds, typed, onType }: Props): React.JSX.Element {
  return (
    <div className="intake-counts">
      <ul aria-label="Counts">
        {counts.map(({ kind, found, understood, asked, leftOut }) => (
          <li key={kind} title={`${found} = ${understood} understood + ${asked} asked + ${leftOut} left out`}>
            <span className="strong">{found}</span> {found === 1 ? singular(kind) : kind}
            {understood < found && (
              <span className="quiet">
                {' '}
                {[
                  ...(asked === 0 ? [] : [`${asked} asked`]),
                  ...(leftOut === 0 ? [] : [`${leftOut} left out`]),
                ].join(' · ')}
              </span>
            )}
          </li>
        ))}
      </ul>
      {records > 0 && (
        <Explained by="designs.seedWith">
          <Checkbox checked={seeds} onChange={({ target }) => onSeeds(target.checked)}>
            Seed with {records === 1 ? 'this' : 'these'} {amount(records, 'record')}
          </Checkbox>
        </Explained>
      )}
      <Input
        aria-label="Narrow the report"
        placeholder="narrow by typing"
        allowClear
        size="small"
        style={{ width: 190 }}
        value={typed}
        onChange={({ target }) => onType(target.value)}
      />
    </div>
  );
}
