import { printFaults, readFaults, type FaultTextProblem } from '@isomeros/core/engine';
import { Button, Input, InputNumber, Popover } from 'antd';
import { useState } from 'react';
import { refusalText } from '../app/api/client.js';
import type { Mock } from '@isomeros/api';
import { useAppSelector } from '../app/store.js';
import { LineProblems } from './LineProblems.js';
import { useLazyReadFaultsQuery, useSaveFaultsMutation } from './recordsApi.js';

const EXAMPLE = 'all: 50..400 ms, 503 5%\ncreateBooking: around 300 ms by 80, cut 2%';
const MOST_SEED = 4_294_967_295;

/** What goes wrong on purpose, a line an operation. */
export function FaultsPanel({ mock }: { readonly mock: Mock }): React.JSX.Element {
  const [readRules] = useLazyReadFaultsQuery();
  const [saveRules] = useSaveFaultsMutation();
  const outline = useAppSelector((state) => state.derived.outline);
  const [isOpen, setOpen] = useState(false);
  // Until the rules are read there is nothing to write into: what was typed would be lost.
  const [text, setText] = useState<string | null>(null);
  const [seed, setSeed] = useState(1);
  const [problems, setProblems] = useState<readonly FaultTextProblem[]>([]);
  const [refused, setRefused] = useState<string | null>(null);
  const after = (work: Promise<void>): void => {
    void work.catch((error: unknown) => {
      setRefused(refusalText(error));
    });
  };
  const open = async (): Promise<void> => {
    const told = await readRules(mock.id).unwrap();
    setText(printFaults(told.items));
    setSeed(told.seed);
    setProblems([]);
    setRefused(null);
  };
  const tell = async (lines: string): Promise<void> => {
    const read = readFaults(lines, new Set(outline?.operations.map(({ id }) => id)));
    setProblems(read.ok ? [] : read.problems);
    setRefused(null);
    if (!read.ok) return;
    const told = await saveRules({ mock: mock.id, faults: { seed, items: read.items } }).unwrap();
    setText(printFaults(told.items));
    setOpen(false);
  };
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      arrow={false}
      open={isOpen}
      onOpenChange={(opens) => {
        setOpen(opens);
        if (!opens) return;
        setText(null);
        after(open());
      }}
      content={
        <FaultRules
          text={text}
          seed={seed}
          problems={problems}
          refused={refused}
          hasNoFaults={mock.faults === 0}
          onText={setText}
          onSeed={setSeed}
          onTell={(lines) => after(tell(lines))}
        />
      }
    >
      <Button className={mock.faults > 0 ? 'faulty' : ''}>
        {mock.faults > 0 ? `Faults ${mock.faults}` : 'Faults'}
      </Button>
    </Popover>
  );
}

interface LinesProps {
  /** `null` until the rules are read. */
  readonly text: string | null;
  readonly seed: number;
  readonly problems: readonly FaultTextProblem[];
  /** Why the server did not take it. */
  readonly refused: string | null;
  readonly hasNoFaults: boolean;
  readonly onText: (text: string) => void;
  readonly onSeed: (seed: number) => void;
  readonly onTell: (text: string) => void;
}

function FaultRules(props: LinesProps): React.JSX.Element {
  const { text, seed, problems, refused, hasNoFaults, onText, onSeed, onTell } = props;
  return (
    <div className="faults">
      <p>
        A line an operation, or <code>all</code>: latency, failures, cut connections, slow bodies.
      </p>
      <Input.TextArea
        aria-label="Fault rules"
        className="mono"
        spellCheck={false}
        autoSize={{ minRows: 4, maxRows: 12 }}
        placeholder={EXAMPLE}
        disabled={text === null}
        value={text ?? ''}
        onChange={({ target }) => onText(target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && event.ctrlKey && text !== null) onTell(text);
        }}
      />
      <LineProblems problems={problems} refused={refused} />
      <div className="acts">
        <label>
          Seed{' '}
          <InputNumber<number>
            aria-label="Seed of the run"
            min={0}
            max={MOST_SEED}
            precision={0}
            value={seed}
            onChange={(value) => onSeed(value ?? 1)}
          />
        </label>
        <span className="quiet">repeats the run</span>
        <Button disabled={hasNoFaults || text === null} onClick={() => onTell('')}>
          Stop faults
        </Button>
        <Button type="primary" disabled={text === null} onClick={() => onTell(text ?? '')}>
          Start faults
        </Button>
      </div>
    </div>
  );
}
