import { Segmented } from 'antd';
import { useSearchParams } from 'react-router';
import { Explained } from '../app/help/Explained.js';

/** The two views of an arrangement: its paths, and where links lead. */
export function ArrangeViews(): React.JSX.Element {
  const [view, choose] = useArrangeView();
  return (
    <Explained by="arrange.views">
      <Segmented
        aria-label="View"
        value={view}
        onChange={choose}
        options={[
          { value: 'paths', label: 'Paths' },
          { value: 'links', label: 'Where a client can go' },
        ]}
      />
    </Explained>
  );
}

type ArrangeView = 'paths' | 'links';

/** Which of the views is shown; it is in the address. */
export function useArrangeView(): readonly [ArrangeView, (view: ArrangeView) => void] {
  const [parameters, setParameters] = useSearchParams();
  const view = parameters.get('view') === 'links' ? 'links' : 'paths';
  return [view, (next) => setParameters(next === 'links' ? { view: next } : {})];
}
