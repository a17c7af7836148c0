import type { Exchange } from '@isomeros/api';
import { findArrangement, LONGEST_EXAMPLE_NAME, type NamedExample } from '@isomeros/core/arrangement';
import { useState } from 'react';
import { api, refusalText } from '../app/api/client.js';
import { ExplainedAction } from '../app/help/Explained.js';
import { NameField } from '../app/parts/NameField.js';
import { useAppSelector } from '../app/store.js';
import { problemOfName } from '../contract/useNamedExamples.js';
import { useDecide } from '../design/useDecide.js';
import { arrangementName } from '../design/viewSlice.js';

interface Props {
  readonly mock: string;
  readonly exchange: Exchange;
}

const NONE: readonly NamedExample[] = [];
/** Takes an exchange over as an example of its operation, with the records it needs. */
export function KeepExchange({ mock, exchange }: Props): React.JSX.Element | null {
  const arrangement = useAppSelector(arrangementName);
  const examples = useAppSelector(
    (state) => findArrangement(state.document.choices, arrangement)?.examples ?? NONE,
  );
  const [isNamed, setNamed] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const decide = useDecide();
  if (exchange.operation === null || exchange.arrangement !== arrangement) return null;
  const keep = async (name: string): Promise<boolean> => {
    try {
      const example = await api.exampleOfExchange(mock, exchange.number);
      const others = examples.filter(({ operation }) => operation === example.operation);
      const problem = problemOfName(others, name, null);
      if (problem !== null) {
        setTold(problem);
        return false;
      }
      const id = `${mock.slice(0, 8)}-${example.id}`;
      decide('examples', { id, example: { ...example, id, name } });
      setTold(
        example.status === exchange.status
          ? `Kept as ${name}, an example of ${exchange.operation ?? ''}.`
          : `Kept as ${name}; on the records it holds it is answered ${example.status}.`,
      );
      return true;
    } catch (error) {
      setTold(refusalText(error));
      return true;
    }
  };
  return (
    <p className="keep-exchange">
      {isNamed ? (
        <NameField
          name={`exchange ${exchange.number}`}
          label="Name of the example"
          isProposed
          most={LONGEST_EXAMPLE_NAME}
          onName={keep}
          onLeave={() => setNamed(false)}
        />
      ) : (
        <ExplainedAction by="contract.keep" onPress={() => setNamed(true)}>
          Keep as an example
        </ExplainedAction>
      )}
      {told !== null && (
        <span className="quiet" role="status">
          {told}
        </span>
      )}
    </p>
  );
}
