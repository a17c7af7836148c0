import {
  arrangementOf,
  leaving,
  OPERATION_BUNDLES,
  setting,
  withLeftOut,
  withSetting,
  type LeaveOut,
  type OfferScope,
} from '@isomeros/core/arrangement';
import { Button, Checkbox, Segmented, Tooltip } from 'antd';
import { useMemo, useState } from 'react';
import { ExplainedWords } from '../app/help/Explained.js';
import { operationsOf, type AbleTo } from '../app/parts/operationsOf.js';
import type { OutlineRow } from '../app/parts/outlineRows.js';
import { useAppSelector } from '../app/store.js';
import { branchOf } from '../design/branchOf.js';
import type { Consequence, Step } from '../design/derivation/protocol.js';
import { useChoose, type ChangeChoices } from '../design/useChoose.js';
import { useConsequences } from '../design/useConsequences.js';
import { arrangementName } from '../design/viewSlice.js';
import { ConsequenceCounts, ConsequenceDetails } from './ConsequenceLines.js';
import { OriginMark } from './OriginMark.js';

const SCOPES = ['this path', 'its branch', 'all paths'] as const;
type Scope = (typeof SCOPES)[number];

/** Something that was asked for and not taken yet. */
interface Asked {
  readonly title: string;
  readonly change: LeaveOut;
}

const NO_STEPS: readonly Step[] = [];

/** Which operations a path, its branch or all paths offer; what would follow is told before it is taken. */
export function OfferPanel({ row }: { readonly row: OutlineRow }): React.JSX.Element {
  const { resource } = row;
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const outline = useAppSelector((state) => state.derived.outline);
  const choose = useChoose();
  const [scope, setScope] = useState<Scope>('this path');
  const [asked, setAsked] = useState<Asked | null>(null);
  const where: OfferScope =
    scope === 'all paths'
      ? 'everywhere'
      : scope === 'its branch' && outline !== null
        ? branchOf(outline, resource.id)
        : [resource.id];
  const changed = (change: LeaveOut): ChangeChoices => {
    return (before, name) => withLeftOut(before, name, where, change);
  };
  const steps = useMemo(
    (): readonly Step[] =>
      asked === null ? NO_STEPS : [{ kind: 'choices', choices: changed(asked.change)(choices, arrangement) }],
    // What is asked for is about what is looked at now.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [asked, scope, choices, arrangement],
  );
  const consequence = useConsequences(steps, 0).get(JSON.stringify(steps[0])) ?? null;
  const take = (change: LeaveOut): void => {
    choose(changed(change));
    setAsked(null);
  };
  const toggle = ({ verb, leavable, id }: AbleTo): void => {
    if (leavable === null) return;
    const change = leaving(leavable, id !== null);
    if (scope === 'this path') take(change);
    else setAsked({ title: `${id === null ? 'Offer' : 'Leave out'} ${verb}`, change });
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
          <Segmented<Scope>
            aria-label="Choose for"
            options={[...SCOPES]}
            value={scope}
            onChange={(next) => {
              setScope(next);
              setAsked(null);
            }}
          />
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
        <span className="bundles">
          {OPERATION_BUNDLES.map(({ title, help, leftOut }) => (
            <Tooltip key={title} title={help} placement="bottomRight" mouseEnterDelay={0.5}>
              <Button
                aria-pressed={asked?.title === title}
                onClick={() => setAsked({ title, change: () => leftOut })}
              >
                {title}
              </Button>
            </Tooltip>
          ))}
        </span>
      </div>
      {asked !== null && (
        <AskedPanel
          title={asked.title}
          where={IN_WORDS[scope]}
          consequence={consequence}
          onTake={() => take(asked.change)}
          onLeave={() => setAsked(null)}
        />
      )}
    </section>
  );
}

const IN_WORDS: Readonly<Record<Scope, string>> = {
  'this path': 'at this path',
  'its branch': 'at this path and below it',
  'all paths': 'at every path of the arrangement',
};

interface AskedProps {
  readonly title: string;
  readonly where: string;
  readonly consequence: Consequence | null;
  readonly onTake: () => void;
  readonly onLeave: () => void;
}

/** What would follow from what was asked for. */
function AskedPanel({ title, where, consequence, onTake, onLeave }: AskedProps): React.JSX.Element {
  return (
    <div className="move-panel" aria-label="What would follow" role="region" aria-live="polite">
      <p className="asked">
        <span className="strong">{title}</span> <span className="quiet">{where}</span>
        <span className="end">
          <ConsequenceCounts consequence={consequence} of="operation" />
        </span>
      </p>
      {consequence !== null && <ConsequenceDetails summary={consequence.summary} />}
      <p className="asked">
        <Button type="primary" autoFocus onClick={onTake}>
          Take it
        </Button>
        <Button onClick={onLeave}>Leave it</Button>
      </p>
    </div>
  );
}
