import { Link } from 'react-router';
import type { SaveState } from '../../design/savingSlice.js';

const clock = (at: string): string => (at === '' ? '' : new Date(at).toTimeString().slice(0, 5));

/** Whether what is on screen is kept by the server. */
interface Props {
  readonly keeping: SaveState;
  /** Where the saved states are listed. */
  readonly revisions: string;
}

export function SaveStatus({ keeping, revisions }: Props): React.JSX.Element {
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
