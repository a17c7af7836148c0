import {
  leadsTo,
  linksCarriedWith,
  offeredWhen,
  type Contract,
  type Operation,
  type Reasons,
} from '@isomeros/core/contract';
import { useAppSelector } from '../app/store.js';

interface Props {
  readonly contract: Contract;
  readonly operation: Operation;
  /** The title of what is asked why at the moment. */
  readonly asked: string;
  readonly onAsk: (asked: { readonly title: string; readonly reasons: Reasons }) => void;
}

/** Where the answer of an operation leads, and when. */
export function OperationLinks({ contract, operation, asked, onAsk }: Props): React.JSX.Element | null {
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const links = operation.returns === null ? [] : linksCarriedWith(contract, operation);
  if (model === null || links.length === 0 || contract.representation.links === 'none') return null;
  return (
    <>
      <header className="panel-head">
        <h3>Links</h3>
        <span className="quiet">where its answer leads</span>
      </header>
      <ul className="answers operation-links">
        {links.map((link) => {
          const title = `the link ${link.relation}`;
          const when = offeredWhen(model, link);
          return (
            <li
              key={link.id}
              className={asked === title ? 'chosen' : ''}
              onClick={() => onAsk({ title, reasons: link.reasons })}
            >
              <button type="button" className="plain-button" aria-label={`Why ${link.relation}`}>
                <code className="strong">{link.relation}</code>
              </button>
              <span className="quiet mono" title={leadsTo(contract, link)}>
                {leadsTo(contract, link)}
              </span>
              <span className="quiet">{when === null ? '' : `if ${when}`}</span>
            </li>
          );
        })}
      </ul>
    </>
  );
}
