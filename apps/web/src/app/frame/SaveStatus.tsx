import { useEffect } from 'react';
import { Link } from 'react-router';
import { saveStateOf } from '../../design/savingSlice.js';
import { useAppSelector } from '../store.js';

const clock = (at: string): string => (at === '' ? '' : new Date(at).toTimeString().slice(0, 5));

interface Props {
  /** Where the saved states are listed. */
  readonly revisions: string;
}

/** Whether what is on screen is kept by the server; nobody leaves by accident while it is not. */
export function SaveStatus({ revisions }: Props): React.JSX.Element {
  const keeping = useAppSelector(saveStateOf);
  useLeaveWarning(keeping.kind === 'waiting' || keeping.kind === 'saving');
  switch (keeping.kind) {
    case 'saved':
      return (
        <Link className="keeping" to={revisions} title="Every saved state">
          All changes kept {clock(keeping.at)}
        </Link>
      );
    case 'waiting':
      return <span className="keeping">Not kept yet</span>;
    case 'saving':
      return <span className="keeping">Keeping</span>;
    case 'failed':
      return (
        <span className="keeping bad" title={keeping.problem.detail} role="alert">
          Not kept: {keeping.problem.title.toLowerCase()}
        </span>
      );
    case 'conflict':
      return (
        <span className="keeping bad" role="alert">
          Changed elsewhere
        </span>
      );
  }
}

function useLeaveWarning(unkept: boolean): void {
  useEffect(() => {
    if (!unkept) return;
    const warn = (event: BeforeUnloadEvent): void => {
      event.preventDefault();
    };
    window.addEventListener('beforeunload', warn);
    return () => {
      window.removeEventListener('beforeunload', warn);
    };
  }, [unkept]);
}
