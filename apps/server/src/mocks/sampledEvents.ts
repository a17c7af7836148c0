import { Observable } from 'rxjs';
import type { MockEvent } from './mockEvent.js';

/** Within so long at most so many exchanges are told to one who looks on; the others are counted. */
const WINDOW_MS = 250;
const MOST_IN_WINDOW = 25;

/** Events for one who looks on, of exchanges no more than somebody can follow. What is left out is told as a number. */
export const sampled = (events: Observable<MockEvent>): Observable<MockEvent> =>
  new Observable((subscriber) => {
    let told = 0;
    let left: Extract<MockEvent, { kind: 'sampled' }> | null = null;
    let timer: NodeJS.Timeout | null = null;
    const open = (): void => {
      told = 0;
      timer = null;
      if (left !== null) subscriber.next(left);
      left = null;
    };
    const subscription = events.subscribe({
      next: (event) => {
        if (event.kind !== 'exchange') {
          subscriber.next(event);
          return;
        }
        timer ??= setTimeout(open, WINDOW_MS).unref();
        told++;
        if (told <= MOST_IN_WINDOW) subscriber.next(event);
        else
          left = {
            kind: 'sampled',
            mock: event.mock,
            told: MOST_IN_WINDOW,
            of: told,
            last: event.exchange.number,
          };
      },
      error: (error: unknown) => subscriber.error(error),
      complete: () => subscriber.complete(),
    });
    return () => {
      subscription.unsubscribe();
      if (timer !== null) clearTimeout(timer);
    };
  });
