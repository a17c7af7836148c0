import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const samples = join(import.meta.dirname, '../../../../samples');

export const kestrelText = readFileSync(join(samples, 'kestrel-sound-ferries.iso.txt'), 'utf8');
export const toolShedText = readFileSync(join(samples, 'tool-shed.iso.txt'), 'utf8');
