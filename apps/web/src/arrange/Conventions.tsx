import {
  arrangementOf,
  BASIC_SETTINGS,
  findSettings,
  hasLevel,
  setting,
  SETTING_GROUPS,
  type Arrangement,
  type ChoosableSetting,
} from '@isomeros/core/arrangement';
import { Input, Segmented } from 'antd';
import { memo, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useAppSelector } from '../app/store.js';
import { SettingRows } from './SettingRows.js';
import { arrangementName } from '../design/viewSlice.js';

type Level = 'design' | 'arrangement';

const BASICS = 'Basics';

/** The basics first, then every other convention in groups that are folded until they are asked for. */
const GROUPS: readonly { readonly title: string; readonly names: readonly ChoosableSetting[] }[] = [
  { title: BASICS, names: BASIC_SETTINGS },
  ...SETTING_GROUPS.map(({ title, names }) => ({
    title,
    names: names.filter((name) => hasLevel(name, 'design') && !BASIC_SETTINGS.includes(name)),
  })),
];

/** Conventions of the whole arrangement, or of the design that all of its arrangements share. */
export const Conventions = memo(function Conventions(): React.JSX.Element {
  const [level, setLevel] = useState<Level>('arrangement');
  const [search, setSearch] = useSearchParams();
  const typed = search.get('setting') ?? '';
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const of = useMemo(() => arrangementOf(arrangement, choices), [arrangement, choices]);
  const found = useMemo(() => (typed === '' ? null : findSettings(typed)), [typed]);
  const groups = GROUPS.map(({ title, names }) => ({
    title,
    names: found === null ? names : names.filter((name) => found.has(name)),
  })).filter(({ names }) => names.length > 0);
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
        <Input
          allowClear
          className="find-setting"
          aria-label="Find a setting"
          placeholder="find a setting"
          value={typed}
          onChange={({ target }) => {
            setSearch(target.value === '' ? {} : { setting: target.value }, { replace: true });
          }}
        />
        {groups.map(({ title, names }) => (
          <SettingGroup
            key={title}
            title={title}
            names={names}
            of={of}
            level={level}
            isOpen={title === BASICS || found !== null}
          />
        ))}
        {groups.length === 0 && <p className="empty-note">No setting holds “{typed}”.</p>}
      </div>
    </section>
  );
});

interface GroupProps {
  readonly title: string;
  readonly names: readonly ChoosableSetting[];
  readonly of: Arrangement;
  readonly level: Level;
  /** Whether it is shown whole anyhow. */
  readonly isOpen: boolean;
}

/** A group of settings; while it is folded it shows those that were set, and says how many and where. */
function SettingGroup({ title, names, of, level, isOpen }: GroupProps): React.JSX.Element {
  const [isUnfolded, setUnfolded] = useState(false);
  const isWhole = isOpen || isUnfolded;
  const set = names.filter((name) => setting(of, name).level !== 'default');
  const count = (at: Level): number => set.filter((name) => setting(of, name).level === at).length;
  const told = (['design', 'arrangement'] as const)
    .filter((at) => count(at) > 0)
    .map((at) => `${count(at)} for the ${at}`);
  return (
    <section aria-label={title}>
      <h3 className="section-head">
        {isOpen ? (
          title
        ) : (
          <button
            type="button"
            className="fold-head"
            aria-expanded={isUnfolded}
            onClick={() => {
              setUnfolded(!isUnfolded);
            }}
          >
            <span aria-hidden>{isUnfolded ? '▾' : '▸'}</span> {title}
          </button>
        )}
        <span className="end quiet">{told.length === 0 ? '' : `set: ${told.join(', ')}`}</span>
      </h3>
      <SettingRows level={level} names={isWhole ? names : set} />
    </section>
  );
}
