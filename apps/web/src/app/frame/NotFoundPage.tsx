import { Link } from 'react-router';
import { Bar } from './Bar.js';
import { StageLine } from './StageLine.js';
import './frame.css';

export function NotFoundPage(): React.JSX.Element {
  return (
    <div className="frame">
      <Bar title="Not there" commands={() => []} />
      <StageLine stages={[]} />
      <main>
        <p className="empty-note">
          There is no page at this address. <Link to="/">Go to the designs</Link>
        </p>
      </main>
    </div>
  );
}
