import type { IntakeFormat } from '@isomeros/core/intake';
import { unexpected } from '../app/api/client.js';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Port } from '../app/workers/protocol.js';
import { WorkerPort } from '../app/workers/workerPort.js';
import type { ChosenAnswers, IntakeProtocol, ReadSource } from './protocol.js';
import type { SourceText } from './sources.js';

export type Reading =
  | { readonly kind: 'none' }
  | { readonly kind: 'reading'; readonly done: number }
  | { readonly kind: 'failed'; readonly why: string }
  | {
      readonly kind: 'read';
      readonly source: SourceText;
      readonly read: ReadSource;
      readonly chosen: ChosenAnswers;
      /** What one record is said to be, where the source does not say. */
      readonly record: string;
    };

export interface UsedIntake {
  readonly reading: Reading;
  /** `record`: what one record is, where the source does not say. */
  readonly begin: (source: SourceText, name: string, record: string) => void;
  /** Answers questions, each with the same option. */
  readonly choose: (questions: readonly number[], option: number) => void;
  readonly nameRecord: (record: string) => void;
  readonly leave: () => void;
}

/** One source on its way to a model. */
export function useIntake(): UsedIntake {
  const [reading, setReading] = useState<Reading>({ kind: 'none' });
  const running = useRef<Port<IntakeProtocol> | null>(null);
  const leave = useCallback((): void => {
    running.current?.end();
    running.current = null;
    setReading({ kind: 'none' });
  }, []);
  useEffect(
    () => () => {
      running.current?.end();
      running.current = null;
    },
    [],
  );
  const begin = useCallback((source: SourceText, name: string, record: string): void => {
    running.current?.end();
    setReading({ kind: 'reading', done: 0 });
    const format: IntakeFormat = source.kind;
    const port = new WorkerPort<IntakeProtocol>(
      () => new Worker(new URL('./intake.worker.ts', import.meta.url), { type: 'module' }),
    );
    running.current = port;
    port
      .ask('read', { format, source: source.text, name, record }, (done) =>
        setReading((now) => (now.kind === 'reading' ? { kind: 'reading', done } : now)),
      )
      .then(
        (read) => setReading({ kind: 'read', source, read, chosen: {}, record }),
        (error: unknown) => setReading(failed(error)),
      );
  }, []);
  const answer = useCallback(
    (changed: { readonly chosen?: ChosenAnswers; readonly record?: string }): void => {
      if (reading.kind !== 'read') return;
      const { chosen, record } = { ...reading, ...changed };
      setReading({ ...reading, chosen, record });
      running.current?.ask('answer', { chosen, record }).then(
        (read) => setReading((now) => (now.kind === 'read' ? { ...now, read } : now)),
        (error: unknown) => setReading(failed(error)),
      );
    },
    [reading],
  );
  const choose = (questions: readonly number[], option: number): void => {
    if (reading.kind !== 'read') return;
    const chosen = Object.fromEntries(questions.map((question) => [question, option]));
    answer({ chosen: { ...reading.chosen, ...chosen } });
  };
  const nameRecord = (record: string): void => answer({ record });
  return { reading, begin, choose, nameRecord, leave };
}

const failed = (error: unknown): Reading => ({
  kind: 'failed',
  why: `Reading failed inside: ${unexpected(error).detail}`,
});
