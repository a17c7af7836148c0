import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { expect, test } from '@jest/globals';
import { arrangementOf, completeModel, readKeptChoices } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { parse } from '@isomeros/core/notation';
import { contractDigest } from '../support/contractDigest.js';

/** A design of format 2, with what the version of that day derived from it: before anything was renamed. */
interface Before {
  readonly text: string;
  readonly choices: object;
  /** Paths, operations, statuses, links and shapes. */
  readonly digest: string;
}

/** The words that are others by now. Setting values and parts of arrangements are mapped by the upgrade of choices. */
const RENAMED: readonly (readonly [before: RegExp, now: string])[] = [[/(?<=→ .*?\S )act(?= )/gm, 'custom']];

/** Lines that are others by now, by their design and their number: a record with nothing to choose has no `fields`. */
const MENDED: ReadonlyMap<number, readonly (readonly [line: number, now: string])[]> = new Map([
  [38, [[26, '    ? expand']]],
]);

function mapped(design: number, digest: string): string {
  const lines = RENAMED.reduce((text, [before, now]) => text.replace(before, now), digest).split('\n');
  for (const [line, now] of MENDED.get(design) ?? []) lines[line] = now;
  return lines.join('\n');
}

const BEFORE = JSON.parse(
  gunzipSync(readFileSync(join(import.meta.dirname, '../golden/format-1/designs.json.gz'))).toString(),
) as readonly Before[];

test.each(BEFORE.map((before, index) => [index, before] as const))(
  'design %d implies what it implied before the words changed',
  (index, { text, choices: kept, digest }) => {
    const choices = readKeptChoices(JSON.stringify(kept));
    const { model, diagnostics } = parse(text);
    expect(diagnostics).toEqual([]);
    const contract = derive(completeModel(model, choices), arrangementOf('main', choices));
    expect(contractDigest(contract).startsWith(mapped(index, digest))).toBe(true);
  },
);
