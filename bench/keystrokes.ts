import type { Page } from '@playwright/test';

/** Tells how long each keystroke takes until the frame that shows it is painted, in milliseconds. */
export async function keystrokesOf(page: Page): Promise<() => Promise<readonly number[]>> {
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(window, { keystrokes: times });
    addEventListener(
      'keydown',
      ({ timeStamp }) => {
        requestAnimationFrame(() => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = () => times.push(performance.now() - timeStamp);
          port2.postMessage(null);
        });
      },
      true,
    );
  });
  return () => page.evaluate(() => (window as unknown as { keystrokes: number[] }).keystrokes.splice(0));
}
