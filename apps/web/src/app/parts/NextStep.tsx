import { NEXT_STEPS } from '../../stages/nextSteps.js';
import { useAppSelector } from '../store.js';

/** What to do next at a stage; nothing once a design has grown. */
export function NextStep({ stage }: { readonly stage: string }): React.JSX.Element | null {
  const entities = useAppSelector(({ design }) => design.figures?.entities ?? null);
  if (entities === null || entities > 1) return null;
  return <p className="next-step">{NEXT_STEPS[stage]}</p>;
}
