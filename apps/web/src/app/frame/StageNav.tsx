import { NavLink } from 'react-router';

/** A stage as the line of stages shows it. */
export interface StageLink {
  readonly number: number;
  readonly name: string;
  readonly figure: string;
  /** Where it leads; `null` on Home, where no design is open. */
  readonly to: string | null;
}

const PLACES = 6;

interface Props {
  readonly stages: readonly StageLink[];
  /** Said of the figures of all stages behind the first, where there is something to say. */
  readonly note?: string | null;
}

/** The stages in order, each with its live figure. Stages that are not there yet leave their place free. */
export function StageNav({ stages, note = null }: Props): React.JSX.Element {
  const places = Array.from({ length: PLACES }, (_, index) =>
    stages.find(({ number }) => number === index + 1),
  );
  return (
    <nav className="stage-line" aria-label="Stages">
      {places.map((stage, index) =>
        stage === undefined ? (
          <span key={index}>
            {index === stages.length && note !== null && (
              <span className="behind" role="status">
                {note}
              </span>
            )}
          </span>
        ) : (
          <StageCell key={index} stage={stage} />
        ),
      )}
    </nav>
  );
}

function StageCell({
  stage: { number, name, figure, to },
}: {
  readonly stage: StageLink;
}): React.JSX.Element {
  const content = (
    <>
      <span>
        <span className="number">{number}</span>
        <span className="name">{name}</span>
      </span>
      <span className="figure">{figure}</span>
    </>
  );
  if (to === null) return <div className="stage">{content}</div>;
  return (
    <NavLink className="stage" to={to}>
      {content}
    </NavLink>
  );
}
