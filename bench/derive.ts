// Parse and derive, as the worker of the page does at each keystroke: in a worker of Debian's Chromium, which the
// budgets are about, and in Node, where the server derives. Run: npm run bench
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { build } from 'vite';
import { ensureChromium } from './chromium.js';
import { derivingMeasured } from './deriving.js';

const sample = readFileSync(new URL('../samples/kestrel-sound-ferries.iso.txt', import.meta.url), 'utf8');

/** The worker and all it needs as one script. */
async function workerScript(): Promise<string> {
  const made = await build({
    configFile: false,
    logLevel: 'error',
    build: {
      write: false,
      lib: {
        entry: fileURLToPath(new URL('./deriving.worker.ts', import.meta.url)),
        formats: ['iife'],
        name: 'deriving',
      },
    },
  });
  const [output] = Array.isArray(made) ? made : [];
  const chunk = output?.output[0];
  if (chunk === undefined) throw new Error('The worker was not built.');
  return chunk.code;
}

async function inChromium(): Promise<void> {
  const script = await workerScript();
  const browser = await chromium.launch({ executablePath: await ensureChromium(), args: ['--no-sandbox'] });
  try {
    const page = await browser.newPage();
    page.on('console', (message) => console.log(message.text()));
    console.log(`\nIn a worker of Chromium ${browser.version()}`);
    await page.evaluate(
      ([code, text]) =>
        new Promise<void>((done, failed) => {
          const worker = new Worker(URL.createObjectURL(new Blob([code], { type: 'text/javascript' })));
          worker.onerror = ({ message }) => {
            failed(new Error(message));
          };
          worker.onmessage = ({ data }: MessageEvent<string | undefined>) => {
            if (data === undefined) done();
            else console.log(data);
          };
          worker.postMessage(text);
        }),
      [script, sample] as const,
    );
  } finally {
    await browser.close();
  }
}

function inNode(): void {
  console.log(`\nIn Node ${process.version}`);
  for (const line of derivingMeasured(sample)) console.log(line);
}

await inChromium();
inNode();
