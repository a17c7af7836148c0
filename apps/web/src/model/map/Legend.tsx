import { ExplainedAction } from '../../app/help/Explained.js';
import type { PlacedMap } from './placed.js';

interface Props {
  readonly map: PlacedMap | null;
  readonly onFit: () => void;
}

/** What the lines mean, with how many there are of each. */
export function Legend({ map, onFit }: Props): React.JSX.Element {
  const count = (kind: string): number => map?.edges.filter((edge) => edge.kind === kind).length ?? 0;
  return (
    <div className="map-legend">
      <span>
        <Sample className="legend-owns" line="M0 4h24" /> <b>owns</b> {count('owns')}
      </span>
      <span>
        <Sample className="legend-refers" line="M0 4h23M18 0l6 4l-6 4" /> <b>refers to</b> {count('refers')},
        dashed if optional
      </span>
      <span>
        <Sample className="legend-refers" line="M0 2h24M0 6h24" /> <b>pairs with</b> {count('pairs')}
      </span>
      {map !== null && map.values.length > 0 && (
        <span className="legend-values">
          <b>values</b> {map.values.join(', ')}
        </span>
      )}
      <span className="end">
        <ExplainedAction by="model.fit" onPress={onFit}>
          Fit
        </ExplainedAction>
      </span>
    </div>
  );
}

function Sample({
  className,
  line,
}: {
  readonly className: string;
  readonly line: string;
}): React.JSX.Element {
  return (
    <svg width="25" height="8" aria-hidden>
      <path className={className} d={line} />
    </svg>
  );
}
