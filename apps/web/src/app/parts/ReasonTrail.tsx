import {
  decisionText,
  isDecision,
  RULES,
  sourceKey,
  type Reason,
  type Source,
} from '@isomeros/core/contract';
import type { StatementPlace } from '@isomeros/core/notation';

interface Props {
  readonly reasons: readonly Reason[];
  readonly places: Readonly<Record<string, StatementPlace>>;
  readonly text: string;
  /** Leads to a statement of the model, by its line. */
  readonly onStatement: (line: number) => void;
}

/** Why something is there: each rule in a sentence, and the statements and settings it read. */
export function ReasonTrail({ reasons, places, text, onStatement }: Props): React.JSX.Element {
  const lines = text.split('\n');
  return (
    <ol className="reason-trail">
      {reasons.map((reason, index) => (
        <li key={`${reason.rule}-${index}`}>
          <span className="number">{index + 1}</span>
          <div>
            <span className="strong">{RULES[reason.rule].sentence}</span>
            <code className="rule-id">{reason.rule}</code>
            <div className="sources">
              {reason.because.map((source) => (
                <SourceLink
                  key={sourceKey(source)}
                  source={source}
                  places={places}
                  lines={lines}
                  onStatement={onStatement}
                />
              ))}
            </div>
          </div>
        </li>
      ))}
    </ol>
  );
}

interface SourceProps {
  readonly source: Source;
  readonly places: Readonly<Record<string, StatementPlace>>;
  readonly lines: readonly string[];
  readonly onStatement: (line: number) => void;
}

function SourceLink({ source, places, lines, onStatement }: SourceProps): React.JSX.Element {
  if (source.kind === 'release') {
    return (
      <span className="quiet">
        Release <code>{source.label}</code>
      </span>
    );
  }
  if (isDecision(source)) {
    const [about, how] = decisionText(source);
    return (
      <span className="quiet">
        {about} <code>{how}</code>, {source.level}
      </span>
    );
  }
  const place = Object.hasOwn(places, source.id) ? places[source.id] : undefined;
  if (place === undefined) return <span className="quiet">{source.id}</span>;
  return (
    <button
      type="button"
      className="text-button"
      onClick={() => {
        onStatement(place.line);
      }}
    >
      Line {place.line} <code>{(lines[place.line - 1] ?? '').trim().slice(0, 60)}</code>
    </button>
  );
}
