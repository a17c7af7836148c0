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

/** The stages in order, each with its live figure. Stages that are not there yet leave their place free. */
export function StageNav({ stages }: { readonly stages: readonly StageLink[] }): React.JSX.Element {
  const places = Array.from({ length: PLACES }, (_, index) =>
    stages.find(({ number }) => number === index + 1),
  );
  return (
    <nav className="stage-line" aria-label="Stages">
      {places.map((stage, index) =>
        stage === undefined ? <span key={index} /> : <StageCell key={index} stage={stage} />,
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
