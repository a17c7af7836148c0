import { parse } from '@isomeros/core/notation';
import type { SeedPreview } from '@isomeros/core/records';
import { printPlan, readPlan, type PlanRead, type PlanTextProblem } from '@isomeros/core/seeding';
import { Button, Input, InputNumber, Popconfirm } from 'antd';
import { useCallback, useEffect, useState } from 'react';
import { refusalText } from '../app/api/client.js';
import type { Mock } from '@isomeros/api';
import { useAppSelector } from '../app/store.js';
import { FirstRecordsChoice } from './FirstRecordsChoice.js';
import { LineProblems } from './LineProblems.js';
import { RemoveInitialRecords } from './RemoveInitialRecords.js';
import { SeedPreviewView } from './SeedPreview.js';
import {
  useLazyReadSeedSettingsQuery,
  usePreviewSeedMutation,
  useSaveSeedSettingsMutation,
} from './recordsApi.js';
import { useRunning } from './useRunning.js';
import { WorkProgress } from './WorkProgress.js';

const MOST_SEED = 4_294_967_295;
const MOST_RECORDS = 1_000_000;
const EXAMPLE = 'Harbour: 30\nBooking: 0..8 each, few have many\nSailing.status: planned 6, departed 3';

interface Props {
  readonly mock: Mock;
  readonly onReset: () => Promise<void>;
}

/** What is wanted of seed records, a line a wish, and the reset that follows it. */
export function SeedRecords({ mock, onReset }: Props): React.JSX.Element {
  const notation = useAppSelector((state) => state.document.text);
  const design = useAppSelector((state) => state.document.design);
  const [readWishes] = useLazyReadSeedSettingsQuery();
  const [previewSeed] = usePreviewSeedMutation();
  const [saveWishes] = useSaveSeedSettingsMutation();
  // Until the wishes are read there is nothing to write into: what was typed would be lost.
  const [text, setText] = useState<string | null>(null);
  const [seed, setSeed] = useState(mock.seed);
  const initial = design?.initialRecords ?? 0;
  const [begins, setBegins] = useState(mock.initialRecords);
  const initialRecords = initial > 0 && begins;
  const [problems, setProblems] = useState<readonly PlanTextProblem[]>([]);
  const [refused, setRefused] = useState<string | null>(null);
  const attempt = useCallback(async (work: () => Promise<void>): Promise<void> => {
    try {
      await work();
      setRefused(null);
    } catch (error) {
      setRefused(refusalText(error));
    }
  }, []);
  useEffect(() => {
    void attempt(async () => {
      const told = await readWishes(mock.id).unwrap();
      setText(printPlan(told));
      setSeed(told.seed);
      setBegins(told.initialRecords);
    });
  }, [mock.id, attempt, readWishes]);
  const { work, run } = useRunning();
  const [preview, setPreview] = useState<SeedPreview | null>(null);
  const readWanted = (): PlanRead => {
    const { model } = parse(notation, design?.identities);
    const read = readPlan(text ?? '', model, MOST_RECORDS);
    setProblems(read.ok ? [] : read.problems);
    return read;
  };
  const look = (): void => {
    const read = readWanted();
    setPreview(null);
    if (!read.ok) return;
    void attempt(async () => {
      setPreview(await run(previewSeed({ mock: mock.id, settings: { seed, initialRecords, ...read.plan } })));
    });
  };
  const reset = (): void => {
    const read = readWanted();
    if (!read.ok) return;
    void attempt(async () => {
      const told = await saveWishes({
        mock: mock.id,
        settings: { seed, initialRecords, ...read.plan },
      }).unwrap();
      setText(printPlan(told));
      await onReset();
    });
  };
  return (
    <div className="seed-records">
      <header className="panel-head">
        <h3>Seed</h3>
        {!initialRecords && (
          <span className="quiet">a line each; entities that are not named get the usual number</span>
        )}
      </header>
      {initial > 0 && (
        <div className="first-records">
          <FirstRecordsChoice initial={initial} begins={begins} onBegins={setBegins} />
          <RemoveInitialRecords design={mock.design} onRefused={setRefused} />
        </div>
      )}
      {!initialRecords && <PlanInput text={text} onText={setText} />}
      <LineProblems problems={problems} refused={refused} />
      {work !== null && <WorkProgress mock={mock.id} onCancel={work.abort} />}
      {preview !== null && <SeedPreviewView preview={preview} />}
      <SeedActs
        isRead={text !== null}
        seed={initialRecords ? null : seed}
        onSeed={setSeed}
        onPreview={look}
        onReset={reset}
      />
    </div>
  );
}

/** A line for each wish; nothing can be typed before what is wanted is known. */
function PlanInput({
  text,
  onText,
}: {
  readonly text: string | null;
  readonly onText: (text: string) => void;
}): React.JSX.Element {
  return (
    <Input.TextArea
      aria-label="What is wanted of seed records"
      className="mono"
      spellCheck={false}
      autoSize={{ minRows: 4, maxRows: 10 }}
      placeholder={EXAMPLE}
      disabled={text === null}
      value={text ?? ''}
      onChange={({ target }) => {
        onText(target.value);
      }}
    />
  );
}

interface ActsProps {
  /** Whether what is wanted is known already. */
  readonly isRead: boolean;
  /** `null` where the initial records of the design are taken. */
  readonly seed: number | null;
  readonly onSeed: (seed: number) => void;
  readonly onPreview: () => void;
  readonly onReset: () => void;
}

function SeedActs({ isRead, seed, onSeed, onPreview, onReset }: ActsProps): React.JSX.Element {
  return (
    <div className="acts">
      {seed === null ? (
        <span className="quiet">They are brought to the newest model; what does not fit is reported.</span>
      ) : (
        <>
          <label>
            Seed{' '}
            <InputNumber<number>
              aria-label="Seed number"
              min={0}
              max={MOST_SEED}
              precision={0}
              value={seed}
              onChange={(value) => {
                onSeed(value ?? 0);
              }}
            />
          </label>
          <span className="quiet">The same seed gives the same records.</span>
        </>
      )}
      <Button disabled={!isRead} onClick={onPreview}>
        Preview
      </Button>
      <Popconfirm
        title={seed === null ? 'Reset to the initial records?' : 'Reset to the seed?'}
        description={
          seed === null
            ? 'All records are replaced by those of the design.'
            : 'All records are replaced by fresh ones.'
        }
        okText="Reset"
        cancelText="Keep"
        onConfirm={onReset}
      >
        <Button disabled={!isRead}>{seed === null ? 'Reset to them' : 'Reset to this seed'}</Button>
      </Popconfirm>
    </div>
  );
}
