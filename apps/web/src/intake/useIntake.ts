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
    };

export interface UsedIntake {
  readonly reading: Reading;
  readonly begin: (source: SourceText, name: string) => void;
  readonly choose: (question: number, option: number) => void;
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
  const begin = useCallback((source: SourceText, name: string): void => {
    running.current?.end();
    setReading({ kind: 'reading', done: 0 });
    const format: IntakeFormat = source.kind;
    const port = new WorkerPort<IntakeProtocol>(
      () => new Worker(new URL('./intake.worker.ts', import.meta.url), { type: 'module' }),
    );
    running.current = port;
    port
      .ask('read', { format, source: source.text, name }, (done) =>
        setReading((now) => (now.kind === 'reading' ? { kind: 'reading', done } : now)),
      )
      .then(
        (read) => setReading({ kind: 'read', source, read, chosen: {} }),
        (error: unknown) => setReading(failed(error)),
      );
  }, []);
  const choose = useCallback(
    (question: number, option: number): void => {
      if (reading.kind !== 'read') return;
      const chosen = { ...reading.chosen, [question]: option };
      setReading({ ...reading, chosen });
      running.current?.ask('answer', chosen).then(
        (read) => setReading((now) => (now.kind === 'read' ? { ...now, read } : now)),
        (error: unknown) => setReading(failed(error)),
      );
    },
    [reading],
  );
  return { reading, begin, choose, leave };
}

const failed = (error: unknown): Reading => ({
  kind: 'failed',
  why: `Reading failed inside: ${unexpected(error).detail}`,
});
