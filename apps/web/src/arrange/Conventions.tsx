import { hasLevel, SETTING_GROUPS } from '@isomeros/core/arrangement';
import { Segmented } from 'antd';
import { memo, useState } from 'react';
import { SettingRows } from './SettingRows.js';

type Level = 'design' | 'arrangement';

/** Conventions of the whole arrangement, or of the design that all of its arrangements share. */
export const Conventions = memo(function Conventions(): React.JSX.Element {
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
        {SETTING_GROUPS.map(({ title, names }) => (
          <section key={title} aria-label={title}>
            <h3 className="section-head">{title}</h3>
            <SettingRows level={level} names={names.filter((name) => hasLevel(name, 'design'))} />
          </section>
        ))}
      </div>
    </section>
  );
});
