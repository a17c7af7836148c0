import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { NO_CHOICES } from '@isomeros/core/arrangement';
import { ComputeService } from '../src/compute/compute.service.js';
import { TEST_SETTINGS } from './support/settings.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'isomeros-compute-'));
});
afterEach(() => {
  rmSync(folder, { recursive: true });
});

// A thread that is ended while it *requires* an ES module takes the whole process with it in Node 20. The moment is
// too short to be met in a test, so that this one sees that no thread can be in it.
test('threads import their program; none can be ended while it requires it', async () => {
  const computeProgram = join(folder, 'program.mjs');
  writeFileSync(computeProgram, 'export const sample = () => process.features.require_module;');
  const compute = new ComputeService({ ...TEST_SETTINGS, computeProgram });
  try {
    expect(await compute.run('sample', { text: '', choices: NO_CHOICES })).toBe(false);
  } finally {
    await compute.onModuleDestroy();
  }
});
