// Writing every published document of a large design, and opening its reference in Chromium. Run: npm run bench:publish
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { arrangementOf, NO_CHOICES } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import type { Contract } from '@isomeros/core/contract';
import { publicationSource } from '@isomeros/core/engine';
import type { Model } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import {
  openApiDocument,
  PUBLICATION_NAMES,
  publish,
  type PublicationSource,
} from '@isomeros/core/publication';
import { chromium } from '@playwright/test';
import { ensureChromium } from './chromium.js';
import { median } from './mock/turns.js';
import { modelText } from './models.js';

const RUNS = 5;
const ENTITIES = 1_000;
/** As many as have two thousand operations. */
const READ_ENTITIES = 215;

const contractOf = (text: string): readonly [Contract, Model] => {
  const { model } = parse(text);
  return [derive(model, arrangementOf('main', NO_CHOICES)), model];
};

const timed = (work: () => void): number => {
  const start = performance.now();
  work();
  return performance.now() - start;
};

/** Entities that nothing joins. */
const apart = Array.from(
  { length: ENTITIES },
  (_, at) => `entity Thing${at}\n  name: text(1..60), required\n`,
);

for (const [what, text] of [
  ['that nothing joins', apart.join('\n')],
  ['with two and a half relationships each', modelText(ENTITIES)],
] as const) {
  let size = 0;
  let operations = 0;
  const times = Array.from({ length: RUNS }, () => {
    // Another contract for each: what is worked out for one is kept with it.
    const [contract] = contractOf(text);
    operations = contract.operations.length;
    return timed(() => {
      size = JSON.stringify(openApiDocument(contract)).length;
    });
  });
  console.log(
    `OpenAPI without examples of ${ENTITIES} entities ${what}, ${operations} operations: median of ${RUNS} ${median(times).toFixed(0)} ms, ${(size / 1_000).toFixed(0)} kB`,
  );
}

const [contract, model] = contractOf(modelText(READ_ENTITIES));
const sourceOf = (): PublicationSource => publicationSource(contract, model, []);
console.log(`${READ_ENTITIES} entities, ${contract.operations.length} operations`);
const examples = Array.from({ length: RUNS }, () => timed(() => void sourceOf().examples()));
console.log(`examples: median of ${RUNS} ${median(examples).toFixed(0)} ms`);
for (const format of PUBLICATION_NAMES) {
  let text = '';
  const times = Array.from({ length: RUNS }, () => {
    const source = sourceOf();
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
  writeFileSync(file, publish(sourceOf(), 'reference.html', { mock: null }));
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(pathToFileURL(file).href);
    // By the clock of the page, until what was loaded is painted.
    times.push(
      await page.evaluate(
        () =>
          new Promise<number>((resolve) => {
            requestAnimationFrame(() => requestAnimationFrame(() => resolve(performance.now())));
          }),
      ),
    );
    await page.close();
  }
  console.log(`the reference opens: median of ${RUNS} ${median(times).toFixed(0)} ms`);
} finally {
  await browser.close();
  rmSync(folder, { recursive: true, force: true });
}
