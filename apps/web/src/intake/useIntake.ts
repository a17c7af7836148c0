import type { IntakeFormat } from '@isomeros/core/intake';
import { useCallback, useEffect, useRef, useState } from 'react';
import { IntakeReading } from './intakeClient.js';
import type { ChosenAnswers, ReadSource } from './intakeMessages.js';
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
  const running = useRef<IntakeReading | null>(null);
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
    running.current = new IntakeReading(
      (read) =>
        setReading((now) => ({ kind: 'read', source, read, chosen: now.kind === 'read' ? now.chosen : {} })),
      (done) => setReading((now) => (now.kind === 'reading' ? { kind: 'reading', done } : now)),
      (why) => setReading({ kind: 'failed', why }),
    );
    running.current.ask({ kind: 'read', format, source: source.text, name });
  }, []);
  const choose = useCallback(
    (question: number, option: number): void => {
      if (reading.kind !== 'read') return;
      const chosen = { ...reading.chosen, [question]: option };
      setReading({ ...reading, chosen });
      running.current?.ask({ kind: 'answer', chosen });
    },
    [reading],
  );
  return { reading, begin, choose, leave };
}
