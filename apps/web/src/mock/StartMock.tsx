import { Button } from 'antd';
import { useAppSelector } from '../app/store.js';

interface Props {
  readonly problem: string | null;
  readonly onStart: () => void;
}

/** What stands here before there is a mock. */
export function StartMock({ problem, onStart }: Props): React.JSX.Element {
  const { outline, derived } = useAppSelector((state) => state.design);
  const broken = (derived?.diagnostics.length ?? 0) > 0;
  const first = outline?.resources.find(({ kind }) => kind === 'collection');
  return (
    <section className="panel">
      <div className="mock-start">
        <h2>No mock yet</h2>
        <p>
          A mock serves the whole contract from records of its own: seeded, checked against the model, and
          kept in the database before any write is answered. It listens on this machine only.
        </p>
        <Button type="primary" size="middle" disabled={outline === null} onClick={onStart}>
          Start the mock
        </Button>
        {broken && outline !== null && (
          <p className="quiet">The text has errors; the last text without them is served.</p>
        )}
        {problem !== null && (
          <p className="wrong" role="alert">
            {problem}
          </p>
        )}
        {outline !== null && first !== undefined && (
          <pre>
            curl http://127.0.0.1:4811{outline.root}
            {first.path}
          </pre>
        )}
      </div>
    </section>
  );
}
