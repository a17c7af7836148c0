import { Splitter } from 'antd';
import { useState, type ReactNode } from 'react';

interface Props {
  /** Under this name the sizes are remembered. */
  readonly name: string;
  /** The first panel's size in pixels at the design size. */
  readonly first: number;
  readonly direction?: 'horizontal' | 'vertical';
  readonly children: readonly [ReactNode, ReactNode];
}

const LEAST = 160;
const LEAST_BELOW = 60;

const key = (name: string): string => `isomeros.panels.${name}`;

/** Two panels with a rule between them that can be dragged; the place of the rule is remembered. */
export function SplitPanels({ name, first, direction = 'horizontal', children }: Props): React.JSX.Element {
  const [size, setSize] = useState(() => {
    const kept = Number(localStorage.getItem(key(name)));
    return kept > 0 ? kept : first;
  });
  return (
    <Splitter
      className="split-panels"
      orientation={direction}
      onResize={([next]) => {
        if (next !== undefined) setSize(next);
      }}
      onResizeEnd={([next]) => {
        if (next !== undefined) localStorage.setItem(key(name), String(Math.round(next)));
      }}
    >
      <Splitter.Panel size={size} min={LEAST}>
        {children[0]}
      </Splitter.Panel>
      <Splitter.Panel min={direction === 'vertical' ? LEAST_BELOW : LEAST}>{children[1]}</Splitter.Panel>
    </Splitter>
  );
}
