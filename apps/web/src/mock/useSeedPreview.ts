import type { parse } from '@isomeros/core/notation';
import type { SeedPreview } from '@isomeros/core/records';
import type { SeedOptions, SeedPlan } from '@isomeros/core/seeding';
import { useCallback, useEffect, useRef, useState } from 'react';
import { refusalText } from '../app/api/client.js';
import { WorkerPort } from '../app/workers/workerPort.js';
import { useAppSelector } from '../app/store.js';

/** What the worker is asked. */
export type SeedPreviewProtocol = {
  readonly preview: {
    readonly question: {
      readonly text: string;
      readonly identities: Parameters<typeof parse>[1];
      readonly options: SeedOptions;
    };
    readonly answer: SeedPreview;
  };
};

export type SeedPreviewState =
  | { readonly kind: 'none' }
  /** `isLong`: it takes over a second. */
  | { readonly kind: 'making'; readonly isLong: boolean }
  | { readonly kind: 'made'; readonly preview: SeedPreview }
  | { readonly kind: 'failed'; readonly why: string };

const LONG_MS = 1_000;

/** What a plan would give, made in a worker; another plan, or leaving, ends it. */
export function useSeedPreview(): {
  readonly state: SeedPreviewState;
  readonly make: (plan: SeedPlan & { readonly seed: number }, most: number) => void;
  readonly cancel: () => void;
} {
  const text = useAppSelector((state) => state.document.text);
  const design = useAppSelector((state) => state.document.design);
  const [state, setState] = useState<SeedPreviewState>({ kind: 'none' });
  const running = useRef<WorkerPort<SeedPreviewProtocol> | null>(null);
  const end = useCallback((): void => {
    running.current?.end();
    running.current = null;
  }, []);
  useEffect(() => end, [end]);
  const make = useCallback(
    (plan: SeedPlan & { readonly seed: number }, most: number): void => {
      end();
      const port = new WorkerPort<SeedPreviewProtocol>(
        () => new Worker(new URL('./seedPreview.worker.ts', import.meta.url), { type: 'module' }),
      );
      running.current = port;
      setState({ kind: 'making', isLong: false });
      const timer = setTimeout(() => {
        if (running.current === port) setState({ kind: 'making', isLong: true });
      }, LONG_MS);
      const tell = (next: SeedPreviewState): void => {
        clearTimeout(timer);
        if (running.current !== port) return;
        end();
        setState(next);
      };
      const options = { ...plan, now: Date.now(), most };
      port.ask('preview', { text, identities: design?.identities, options }).then(
        (preview) => tell({ kind: 'made', preview }),
        (error: unknown) => tell({ kind: 'failed', why: refusalText(error) }),
      );
    },
    [design, end, text],
  );
  const cancel = (): void => {
    end();
    setState({ kind: 'none' });
  };
  return { state, make, cancel };
}
