import { Segmented } from 'antd';
import { useState } from 'react';
import { SettingRows } from './SettingRows.js';

type Level = 'design' | 'arrangement';

/** Conventions of the whole arrangement, or of the design that all of its arrangements share. */
export function Conventions(): React.JSX.Element {
  const [level, setLevel] = useState<Level>('arrangement');
  return (
    <section className="panel conventions" aria-label="Conventions">
      <header className="panel-head">
        <h2>Conventions</h2>
        <span className="end" role="group" aria-label="Set for the">
          <Segmented<Level>
            value={level}
            onChange={setLevel}
            options={[
              { value: 'design', label: 'design' },
              { value: 'arrangement', label: 'arrangement' },
            ]}
          />
        </span>
      </header>
      <div className="panel-body">
        <SettingRows level={level} />
      </div>
    </section>
  );
}
