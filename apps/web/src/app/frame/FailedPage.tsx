import { Button } from 'antd';
import { useRouteError } from 'react-router';

/** Stands where a page failed: a fault in it, or a part of it that could not be read. */
export function FailedPage(): React.JSX.Element {
  const error = useRouteError();
  return (
    <section className="failed-page" role="alert">
      <h1>This page failed</h1>
      <p>Your changes are saved as you make them, and the rest of the page goes on. This is what happened:</p>
      <p className="mono">{error instanceof Error ? error.message : String(error)}</p>
      <Button type="primary" onClick={() => window.location.reload()}>
        Read it again
      </Button>
    </section>
  );
}
