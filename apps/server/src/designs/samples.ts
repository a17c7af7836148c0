import type { Sample } from '@isomeros/api';
import { NO_CHOICES, readChoices, type Choices } from '@isomeros/core/arrangement';
import { readJson } from '@isomeros/core/model';
import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { ComputeService } from '../compute/compute.service.js';

const TEXT = '.iso.txt';
/** What was decided about the sample of the same name besides its text. */
const CHOICES = '.choices.json';

/** Reads the samples of a folder, in the order of their file names. */
export async function readSamples(folder: string, compute: ComputeService): Promise<readonly Sample[]> {
  const files = new Set(await readdir(folder));
  const ids = [...files].filter((file) => file.endsWith(TEXT)).map((file) => file.slice(0, -TEXT.length));
  return Promise.all(
    ids.sort().map(async (id) => {
      const text = await readFile(join(folder, id + TEXT), 'utf8');
      const choices = files.has(id + CHOICES) ? await choicesIn(join(folder, id + CHOICES)) : NO_CHOICES;
      const { diagnostics, name, description, figures, fingerprint } = await compute.run('sample', {
        text,
        choices,
      });
      const [first] = diagnostics;
      if (first !== undefined)
        throw new Error(`The sample ${id} has an error in line ${first.place.line}: ${first.message}`);
      return { id, name, description, text, choices, figures, fingerprint };
    }),
  );
}

async function choicesIn(file: string): Promise<Choices> {
  const read = readJson(await readFile(file, 'utf8'));
  if (!read.ok) throw new Error(`${file} is no JSON: ${read.problem.message}`);
  const { value, problems } = readChoices(read.value, '');
  const [first] = problems;
  if (first !== undefined) throw new Error(`${file} has an error at ${first.pointer}: ${first.message}`);
  return value;
}
