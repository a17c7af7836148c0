import type { Sample } from '@isomeros/api';
import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { ComputeService } from '../compute/compute.service.js';

const ENDING = '.iso.txt';

/** Reads the samples of a folder, in the order of their file names. */
export async function readSamples(folder: string, compute: ComputeService): Promise<readonly Sample[]> {
  const files = (await readdir(folder)).filter((file) => file.endsWith(ENDING)).sort();
  return Promise.all(
    files.map(async (file) => {
      const text = await readFile(join(folder, file), 'utf8');
      const { diagnostics, name, description, figures, fingerprint } = await compute.run('sample', text);
      const [first] = diagnostics;
      if (first !== undefined)
        throw new Error(`The sample ${file} has an error in line ${first.place.line}: ${first.message}`);
      return { id: file.slice(0, -ENDING.length), name, description, text, figures, fingerprint };
    }),
  );
}
