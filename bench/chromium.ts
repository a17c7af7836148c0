import { fileURLToPath } from 'node:url';

const script = fileURLToPath(new URL('../scripts/lib/chromium.mjs', import.meta.url));

/** The path of Debian's Chromium, installed when it is missing. */
export const { ensureChromium } = (await import(script)) as { ensureChromium: () => Promise<string> };
