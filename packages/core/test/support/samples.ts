import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Json } from '@isomeros/core/model';

const samples = join(import.meta.dirname, '../../../../samples');

export const kestrelText = readFileSync(join(samples, 'kestrel-sound-ferries.iso.txt'), 'utf8');
export const toolShedText = readFileSync(join(samples, 'tool-shed.iso.txt'), 'utf8');

/** What is decided about the sample, as the file beside its text has it. */
export const kestrelChoices = JSON.parse(
  readFileSync(join(samples, 'kestrel-sound-ferries.choices.json'), 'utf8'),
) as Json;
