import type { IntakeCount } from '@isomeros/core/intake';
import { singular } from '@isomeros/core/model';
import { Input } from 'antd';

interface Props {
  readonly counts: readonly IntakeCount[];
  readonly typed: string;
  readonly onType: (typed: string) => void;
}

/** What became of everything that the source declares: the rest was understood. Beside it the report is narrowed by typing. */
export function IntakeCounts({ counts, typed, onType }: Props): React.JSX.Element {
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
