import type { PlacedMap } from './placed.js';
import type { Size, View } from './view.js';

const WIDTH = 150;

interface Props {
  readonly map: PlacedMap;
  readonly view: View;
  readonly window: Size;
  readonly onMove: (view: View) => void;
}

/** The whole of a large map, small, with the part in view; a click goes there. */
export function Overview({ map, view, window, onMove }: Props): React.JSX.Element {
  const scale = WIDTH / Math.max(1, map.width);
  const height = Math.max(20, Math.min(120, map.height * scale));
  const go = (event: React.MouseEvent<SVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const x = ((event.clientX - box.left) / WIDTH) * map.width;
    const y = ((event.clientY - box.top) / height) * map.height;
    onMove({ ...view, x: x - window.width / view.scale / 2, y: y - window.height / view.scale / 2 });
  };
  return (
    <svg
      className="map-overview"
      width={WIDTH}
      height={height}
      viewBox={`0 0 ${map.width} ${map.height}`}
      preserveAspectRatio="none"
      onClick={go}
      aria-hidden
    >
      {map.nodes.map(({ name, x, y, width, height: tall }) => (
        <rect key={name} x={x} y={y} width={width} height={tall} />
      ))}
      <rect
        className="in-view"
        x={view.x}
        y={view.y}
        width={window.width / view.scale}
        height={window.height / view.scale}
      />
    </svg>
  );
}
