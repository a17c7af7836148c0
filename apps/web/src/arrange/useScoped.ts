import type { Choices, SettingScope } from '@isomeros/core/arrangement';
import type { ResourceKind } from '@isomeros/core/contract';
import { useMemo, useState } from 'react';
import { useAppSelector } from '../app/store.js';
import { branchOf } from '../design/branchOf.js';
import type { Consequence, Step } from '../design/derivation/protocol.js';
import { useChoose } from '../design/useChoose.js';
import { useConsequences } from '../design/useConsequences.js';
import { arrangementName } from '../design/viewSlice.js';

export const SCOPES = ['this path', 'its branch', 'all paths'] as const;
export type Scope = (typeof SCOPES)[number];

/** Something that can be chosen for several paths in one step. */
export interface ScopedChange {
  readonly title: string;
  readonly change: (choices: Choices, arrangement: string, where: SettingScope) => Choices;
}

export interface Scoped {
  readonly scope: Scope;
  readonly setScope: (scope: Scope) => void;
  /** What was asked for and not taken yet. */
  readonly asked: ScopedChange | null;
  readonly ask: (change: ScopedChange | null) => void;
  /** What would follow from it; `null` until that is known. */
  readonly consequence: Consequence | null;
  readonly take: (change: ScopedChange) => void;
}

const NO_STEPS: readonly Step[] = [];

/**
 * Chooses something for a path, its branch or all paths; what would follow is told before it is taken. `kinds`: the
 * paths of a branch that it means something for, where it does not for all.
 */
export function useScoped(resource: string, kinds: ReadonlySet<ResourceKind> | null = null): Scoped {
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const outline = useAppSelector((state) => state.derived.outline);
  const choose = useChoose();
  const [scope, setScope] = useState<Scope>('this path');
  const [asked, setAsked] = useState<ScopedChange | null>(null);
  const where = useMemo(
    (): SettingScope =>
      scope === 'all paths'
        ? 'everywhere'
        : scope === 'its branch' && outline !== null
          ? branchOf(outline, resource, kinds)
          : [resource],
    [scope, outline, resource, kinds],
  );
  const steps = useMemo(
    (): readonly Step[] =>
      asked === null ? NO_STEPS : [{ kind: 'choices', choices: asked.change(choices, arrangement, where) }],
    [asked, where, choices, arrangement],
  );
  const consequence = useConsequences(steps, 0).get(JSON.stringify(steps[0])) ?? null;
  return {
    scope,
    setScope: (next) => {
      setScope(next);
      setAsked(null);
    },
    asked,
    ask: setAsked,
    consequence,
    take: ({ change }) => {
      choose((before, name) => change(before, name, where));
      setAsked(null);
    },
  };
}
