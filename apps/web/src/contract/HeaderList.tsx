import { casesByStatus, requestHeaders, responseHeaders, type HeaderUse } from '@isomeros/core/contract';
import type { AskProps } from './InOutTable.js';
import { NoteText } from './NoteText.js';

/** Where a header stands: in requests, or in answers of some statuses. */
interface Placed {
  readonly use: HeaderUse;
  readonly where: string;
}

/** The headers that requests of an operation may carry, and those its answers say. */
export function HeaderList({
  contract,
  operation,
}: Pick<AskProps, 'contract' | 'operation'>): React.JSX.Element | null {
  const headers = placedHeaders(contract, operation);
  if (headers.length === 0) return null;
  return (
    <>
      <header className="panel-head">
        <h3>Headers</h3>
        <span className="quiet">besides those of every message</span>
      </header>
      <ul className="answers operation-headers">
        {headers.map(({ use, where }) => (
          <li key={`${where} ${use.name}`}>
            <code>{use.name}</code>
            <span className={use.isRequired ? 'strong' : 'quiet'}>{where}</span>
            <span>
              <NoteText
                contract={contract}
                kind="header"
                subject={use.subject}
                on={use.name}
                usual={use.description}
              />
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

function placedHeaders(contract: AskProps['contract'], operation: AskProps['operation']): readonly Placed[] {
  const answered = new Map<string, { readonly use: HeaderUse; readonly statuses: number[] }>();
  for (const [status, cases] of casesByStatus(operation.responses))
    for (const use of responseHeaders(contract, operation, cases)) {
      const known = answered.get(use.name);
      if (known === undefined) answered.set(use.name, { use, statuses: [status] });
      else known.statuses.push(status);
    }
  const all = new Set(operation.responses.map(({ status }) => status)).size;
  return [
    ...requestHeaders(contract, operation).map((use) => ({ use, where: use.isRequired ? 'must' : 'may' })),
    ...[...answered.values()].map(({ use, statuses }) => ({
      use,
      where: statuses.length === all ? 'always' : statuses.join(', '),
    })),
  ];
}
