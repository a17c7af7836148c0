// Writing every published document of a large design, and opening its reference in Chromium. Run: npm run bench:publish
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { arrangementOf, NO_CHOICES } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { publicationSource } from '@isomeros/core/engine';
import { parse } from '@isomeros/core/notation';
import { PUBLICATION_NAMES, publish, type PublicationSource } from '@isomeros/core/publication';
import { chromium } from '@playwright/test';
import { ensureChromium } from './chromium.js';
import { median } from './mock/turns.js';
import { modelText } from './models.js';

const RUNS = 5;
const ENTITIES = 1_000;
/** As many as have two thousand operations. */
const READ_ENTITIES = 215;

function sourceOf(entities: number): () => PublicationSource {
  const { model } = parse(modelText(entities));
  const contract = derive(model, arrangementOf('main', NO_CHOICES));
  console.log(`${entities} entities, ${contract.operations.length} operations`);
  return () => publicationSource(contract, model, []);
}

const timed = (work: () => void): number => {
  const start = performance.now();
  work();
  return performance.now() - start;
};

const large = sourceOf(ENTITIES);
const examples = Array.from({ length: RUNS }, () => timed(() => void large().examples()));
console.log(`examples: median of ${RUNS} ${median(examples).toFixed(0)} ms`);
for (const format of PUBLICATION_NAMES) {
  let text = '';
  const times = Array.from({ length: RUNS }, () => {
    const source = large();
    // What several documents are written from is worked out once for all of them.
    source.examples();
    if (format === 'curl.sh') source.calls();
    return timed(() => {
      text = publish(source, format, { mock: null });
    });
  });
  console.log(
    `${format}: median of ${RUNS} ${median(times).toFixed(0)} ms, ${(text.length / 1_000).toFixed(0)} kB`,
  );
}

const folder = mkdtempSync(join(tmpdir(), 'isomeros-publish-'));
const browser = await chromium.launch({
  executablePath: await ensureChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
});
try {
  const file = join(folder, 'reference.html');
  writeFileSync(file, publish(sourceOf(READ_ENTITIES)(), 'reference.html', { mock: null }));
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const start = performance.now();
    await page.goto(pathToFileURL(file).href);
    await page.getByLabel('Find').waitFor();
    times.push(performance.now() - start);
    await page.close();
  }
  console.log(`the reference opens: median of ${RUNS} ${median(times).toFixed(0)} ms`);
} finally {
  await browser.close();
  rmSync(folder, { recursive: true, force: true });
}
