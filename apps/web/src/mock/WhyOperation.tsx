import { indexContract, type Contract } from '@isomeros/core/contract';
import { indexModel } from '@isomeros/core/model';
import type { StatementPlace } from '@isomeros/core/notation';
import { Link, useNavigate, useParams } from 'react-router';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import { useAppSelector } from '../app/store.js';

const NOWHERE: Readonly<Record<string, StatementPlace>> = {};

interface Props {
  readonly contract: Contract | null;
  /** Its id. */
  readonly operation: string;
}

/** Where an operation stands in the contract, and why: the rules, and the lines of the model that they read. */
export function WhyOperation({ contract, operation }: Props): React.JSX.Element | null {
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const places = useAppSelector((state) => state.derived.reading?.places ?? NOWHERE);
  const text = useAppSelector((state) => state.document.text);
  const found = contract === null ? undefined : indexContract(contract).operations.get(operation);
  if (found === undefined) return null;
  return (
    <details className="candidates">
      <summary>Why {operation} is there</summary>
      <p>
        <Link to={`/designs/${id}/contract?operation=${encodeURIComponent(operation)}`}>
          Show it in the contract
        </Link>
      </p>
      <ReasonTrail
        reasons={found.reasons}
        places={places}
        text={text}
        onStatement={(line) => void navigate(`/designs/${id}/model?line=${line}`)}
      />
    </details>
  );
}

/** The line of the model on which an entity is declared, where it still is. */
export function EntityLine({ entity }: { readonly entity: string }): React.JSX.Element | null {
  const { id = '' } = useParams();
  const line = useAppSelector(({ derived: { reading } }) => {
    if (reading === null) return undefined;
    const declared = indexModel(reading.model).entities.get(entity);
    return declared !== undefined && Object.hasOwn(reading.places, declared.id)
      ? reading.places[declared.id]?.line
      : undefined;
  });
  if (line === undefined) return null;
  return <Link to={`/designs/${id}/model?line=${line}`}>Line {line}</Link>;
}
