import { credentialsOf } from '@isomeros/core/engine';
import { useContract } from '../design/useContract.js';

/** Whom the mock knows, where the contract asks who sends. */
export function Credentials(): React.JSX.Element | null {
  const contract = useContract();
  const known = contract === null ? [] : credentialsOf(contract);
  if (known.length === 0) return null;
  return (
    <div className="fact credentials">
      <span className="label">Knows</span>
      <span className="mono">
        {known.map(({ name, secret, roles }) => (
          <span
            key={name}
            title={roles.length === 0 ? `${name}, without a role` : `${name}, as ${roles.join(' and ')}`}
          >
            {name}:{secret}
          </span>
        ))}
      </span>
    </div>
  );
}
