import { indexContract, type OutlineOperation, type Reason } from '@isomeros/core/contract';
import { useState } from 'react';
import type { OutlineRow } from '../app/parts/outlineRows.js';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import { useAppSelector } from '../app/store.js';
import { useContract } from '../design/useContract.js';

interface Props {
  readonly row: OutlineRow;
  /** The operation that is looked at; its path where it is left out. */
  readonly operation: OutlineOperation | undefined;
  readonly onStatement: (line: number) => void;
}

/** Something that can be asked why. */
interface Askable {
  readonly id: string;
  readonly label: string;
  readonly about: string;
  readonly reasons: readonly Reason[];
}

const NOWHERE = {};

/** Why a path or an operation is there, and why each of its statuses and links is. */
export function WhyHere({ row, operation, onStatement }: Props): React.JSX.Element {
  const contract = useContract();
  const places = useAppSelector((state) => state.derived.reading?.places ?? NOWHERE);
  const text = useAppSelector((state) => state.document.text);
  const [asked, setAsked] = useState<string | null>(null);
  const index = contract === null ? null : indexContract(contract);
  const whole = operation === undefined ? undefined : index?.operations.get(operation.id);
  const links = operation === undefined ? (index?.resources.get(row.resource.id)?.links ?? []) : [];
  const askable: Askable[] =
    whole === undefined
      ? links.map(({ id, relation, target, reasons }) => ({
          id,
          label: relation,
          about: 'resource' in target ? (index?.resources.get(target.resource)?.path ?? '') : '',
          reasons,
        }))
      : whole.responses.map(({ status, code, when, reasons }) => ({
          id: code,
          label: String(status),
          about: when,
          reasons,
        }));
  const trail = (reasons: readonly Reason[]): React.JSX.Element => (
    <ReasonTrail reasons={reasons} places={places} text={text} onStatement={onStatement} />
  );
  return (
    <>
      {trail(whole?.reasons ?? row.resource.reasons)}
      {askable.length > 0 && (
        <ul className="askable" aria-label={whole === undefined ? 'Links' : 'Statuses'}>
          {askable.map(({ id, label, about, reasons }) => (
            <li key={id}>
              <button
                type="button"
                className="plain-button"
                aria-expanded={asked === id}
                onClick={() => setAsked(asked === id ? null : id)}
              >
                <code className="strong">{label}</code> <span className="quiet">{about}</span>
              </button>
              {asked === id && trail(reasons)}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
