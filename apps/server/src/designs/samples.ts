import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { NO_CHOICES } from '@isomeros/core/arrangement';
import { fingerprintOf, type FingerprintColumn } from '@isomeros/core/contract';
import { parse } from '@isomeros/core/notation';
import { deriveFrom } from './derivations.js';
import { designFigures, type DesignFigures } from './views.js';

export interface Sample {
  /** The name of its file, without ending. */
  readonly id: string;
  readonly name: string;
  readonly description: string | null;
  readonly text: string;
  readonly figures: DesignFigures;
  readonly fingerprint: readonly FingerprintColumn[];
}

const ENDING = '.iso.txt';

/** Reads the samples of a folder, in the order of their file names. */
export async function readSamples(folder: string): Promise<readonly Sample[]> {
  const files = (await readdir(folder)).filter((file) => file.endsWith(ENDING)).sort();
  return Promise.all(
    files.map(async (file) => {
      const text = await readFile(join(folder, file), 'utf8');
      const { diagnostics } = parse(text);
      const [first] = diagnostics;
      if (first !== undefined)
        throw new Error(`The sample ${file} has an error in line ${first.place.line}: ${first.message}`);
      const { model, contract } = deriveFrom(text, {}, NO_CHOICES, 'main');
      return {
        id: file.slice(0, -ENDING.length),
        name: model.name,
        description: model.description,
        text,
        figures: designFigures(model, contract, NO_CHOICES),
        fingerprint: fingerprintOf(contract),
      };
    }),
  );
}
