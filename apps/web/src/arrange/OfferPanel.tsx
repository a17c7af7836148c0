import {
  arrangementOf,
  leaving,
  OPERATION_BUNDLES,
  setting,
  withLeftOut,
  withSetting,
  type LeaveOut,
} from '@isomeros/core/arrangement';
import { Checkbox } from 'antd';
import { ExplainedWords } from '../app/help/Explained.js';
import { operationsOf, type AbleTo } from '../app/parts/operationsOf.js';
import type { OutlineRow } from '../app/parts/outlineRows.js';
import { useAppSelector } from '../app/store.js';
import { useChoose } from '../design/useChoose.js';
import { arrangementName } from '../design/viewSlice.js';
import { OriginMark } from './OriginMark.js';
import { ConsequencePanel, BundleButtons, ScopeChooser, type Bundle } from './ScopedChoice.js';
import { useScoped, type ScopedChange } from './useScoped.js';

const leavingOut = (title: string, change: LeaveOut): ScopedChange => ({
  title,
  change: (choices, arrangement, where) => withLeftOut(choices, arrangement, where, change),
});

const BUNDLES: readonly Bundle[] = OPERATION_BUNDLES.map(({ title, help, leftOut }) => ({
  ...leavingOut(title, () => leftOut),
  help,
}));

/** Which operations a path, its branch or all paths offer; what would follow is told before it is taken. */
export function OfferPanel({ row }: { readonly row: OutlineRow }): React.JSX.Element {
  const { resource } = row;
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const choose = useChoose();
  const scoped = useScoped(resource.id);
  const toggle = ({ verb, leavable, id }: AbleTo): void => {
    if (leavable === null) return;
    const title = `${id === null ? 'Offer' : 'Leave out'} ${verb}`;
    const change = leavingOut(title, leaving(leavable, id !== null));
    if (scoped.scope === 'this path') scoped.take(change);
    else scoped.ask(change);
  };
  const { level } = setting(arrangementOf(arrangement, choices), 'leftOut', { resource: resource.id });
  const reset = (): void => {
    if (level === 'default' || level === 'operation') return;
    const place = level === 'resource' ? { level, id: resource.id } : { level };
    choose((before, name) => withSetting(before, name, place, { name: 'leftOut', value: null }));
  };
  return (
    <section className="offer-panel" aria-label="Operations of the path">
      <h3 className="section-head">
        <ExplainedWords by="arrange.offered">Offered</ExplainedWords>
        <span className="end">
          <ScopeChooser scoped={scoped} label="Choose for" />
          <OriginMark title="Left out" level={level} onReset={level === 'default' ? null : reset} />
        </span>
      </h3>
      <div className="offers" role="group" aria-label="Offered">
        {operationsOf(row)
          .filter(({ leavable }) => leavable !== null)
          .map((operation) => (
            <Checkbox key={operation.verb} checked={operation.id !== null} onChange={() => toggle(operation)}>
              {operation.verb}
            </Checkbox>
          ))}
        <BundleButtons scoped={scoped} bundles={BUNDLES} />
      </div>
      <ConsequencePanel scoped={scoped} />
    </section>
  );
}
