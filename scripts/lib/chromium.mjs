import { say } from './say.mjs';
import { ensureProgram, findProgram } from './systemPackages.mjs';

/** Chromium without windows: a page opens in two thirds of the time. */
const WITHOUT_WINDOWS = 'chromium-headless-shell';

/** The path of Debian's Chromium, installed when it is missing. One with windows will do where that is not allowed. */
export async function ensureChromium() {
  try {
    return await ensureProgram([WITHOUT_WINDOWS], [WITHOUT_WINDOWS]);
  } catch (error) {
    const withWindows = findProgram('chromium');
    if (withWindows === null || !(error instanceof Error)) throw error;
    say(`${error.message}\n${withWindows} is used in its place.`);
    return withWindows;
  }
}
