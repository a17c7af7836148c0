import { Link } from 'react-router';
import { TopBar } from './TopBar.js';
import { StageNav } from './StageNav.js';
import './frame.css';

export function NotFoundPage(): React.JSX.Element {
  return (
    <div className="frame">
      <TopBar title="Not there" commands={() => []} />
      <StageNav stages={[]} />
      <main>
        <p className="empty-note">
          There is no page at this address. <Link to="/">Go to the designs</Link>
        </p>
      </main>
    </div>
  );
}
