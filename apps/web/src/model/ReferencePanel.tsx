import { lazy, Suspense, type ReactNode } from 'react';

const NotationText = lazy(() => import('./NotationText.js'));

/** The reference of the notation beside the text that is written. */
export function ReferencePanel({ viewSwitch }: { readonly viewSwitch: ReactNode }): React.JSX.Element {
  return (
    <section className="panel" aria-label="Reference of the notation">
      <header className="panel-head">{viewSwitch}</header>
      <div className="panel-body reference" tabIndex={0}>
        <Suspense fallback={<p className="quiet">Reading.</p>}>
          <NotationText />
        </Suspense>
      </div>
    </section>
  );
}
