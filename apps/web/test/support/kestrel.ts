import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { arrangementOf, NO_CHOICES } from '@isomeros/core/arrangement';
import type { Contract, Operation } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { parse } from '@isomeros/core/notation';

export const kestrelText = readFileSync(
  join(import.meta.dirname, '../../../../samples/kestrel-sound-ferries.iso.txt'),
  'utf8',
);
export const kestrel: Contract = derive(parse(kestrelText).model, arrangementOf('main', NO_CHOICES));

export function operationOf(id: string): Operation {
  const operation = kestrel.operations.find((candidate) => candidate.id === id);
  if (operation === undefined) throw new Error(`There is no operation ${id}.`);
  return operation;
}
