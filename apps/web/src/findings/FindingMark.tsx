import type { Severity } from '@isomeros/core/contract';
import './questions.css';

/** Something is found where it stands; its colour says how bad it is, its name says so too. */
export const FindingMark = ({ severity }: { readonly severity: Severity }): React.JSX.Element => (
  <span className={`finding-mark ${severity}`} role="img" aria-label={`a finding: ${severity}`}>
    !
  </span>
);
