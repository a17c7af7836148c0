import { Radio } from 'antd';
import { Explained } from '../app/help/Explained.js';
import { amount } from '../app/parts/amount.js';

interface Props {
  /** How many initial records the design has. */
  readonly initial: number;
  /** Whether the mock begins with them. */
  readonly begins: boolean;
  readonly onBegins: (begins: boolean) => void;
}

/** What a mock begins with, and goes back to: the initial records of the design, or seed records. */
export function FirstRecordsChoice({ initial, begins, onBegins }: Props): React.JSX.Element {
  return (
    <Explained by="mock.firstRecords">
      <Radio.Group
        aria-label="First records"
        value={begins}
        onChange={({ target }) => onBegins(target.value === true)}
        options={[
          { value: true, label: `the ${amount(initial, 'initial record')} of the design` },
          { value: false, label: 'seed records' },
        ]}
      />
    </Explained>
  );
}
