import { keepChoices, NO_CHOICES, readKeptChoices, type Choices } from '@isomeros/core/arrangement';
import {
  declareRename,
  NO_RENAME_CANDIDATES,
  reconcile,
  trackRenames,
  type Identities,
  type RenameCandidates,
  Format,
  type JsonObject,
  type Model,
} from '@isomeros/core/model';
import { parse, type Diagnostic, type ParseResult } from '@isomeros/core/notation';
import { randomUUID } from 'node:crypto';
import type { DesignRow } from '../database/tables.js';

/** The parts of a row that are kept as JSON. */
export const readIdentities = (row: Pick<DesignRow, 'identities'>): Identities =>
  JSON.parse(row.identities) as Identities;
export const choicesOf = (row: Pick<DesignRow, 'choices'>): Choices => readKeptChoices(row.choices);
export const readRenameCandidates = (row: DesignRow): RenameCandidates =>
  CANDIDATES_FORMAT.upgrade(JSON.parse(row.renameCandidates) as JsonObject) as unknown as RenameCandidates;

const keepRenameCandidates = (candidates: RenameCandidates): string =>
  JSON.stringify(CANDIDATES_FORMAT.stamp(candidates));

/** Format 1 calls them otherwise. */
const CANDIDATES_FORMAT = new Format('A design', [
  ({ gone, fresh }) => ({ removed: gone ?? [], added: fresh ?? [] }),
]);

const readText = (row: DesignRow): ParseResult => parse(row.text, readIdentities(row));
const readValid = (row: Pick<DesignRow, 'validText' | 'identities'>): Model =>
  parse(row.validText, readIdentities(row)).model;

const MOST_CHARACTERS = 255;

const nameIn = ({ model }: ParseResult): string =>
  model.name === '' ? 'Untitled design' : model.name.slice(0, MOST_CHARACTERS);

export interface DesignSource {
  /** Without errors. */
  readonly text: string;
  readonly identities?: Identities;
  readonly choices?: Choices;
}

/** The row of a design that begins with a sound text; what is wrong with a text that is not. */
export function newRow({ text, ...given }: DesignSource): DesignRow | readonly Diagnostic[] {
  const parsed = parse(text, given.identities ?? {});
  if (parsed.diagnostics.length > 0) return parsed.diagnostics;
  const now = new Date();
  return {
    id: randomUUID(),
    name: nameIn(parsed),
    text,
    validText: text,
    identities: JSON.stringify(reconcile(parsed.model, parsed.model)),
    choices: keepChoices(given.choices ?? NO_CHOICES),
    renameCandidates: keepRenameCandidates(NO_RENAME_CANDIDATES),
    figures: null,
    figuresVersion: 0,
    revision: 1,
    createdAt: now,
    changedAt: now,
    removedAt: null,
  };
}

const next = (row: DesignRow): DesignRow => ({ ...row, revision: row.revision + 1, changedAt: new Date() });

/** The row after another text was saved; the same row when it is the same text. */
export function withText({ row, text }: { readonly row: DesignRow; readonly text: string }): DesignRow {
  if (row.text === text) return row;
  const changed = { ...next(row), text };
  const parsed = parse(text, readIdentities(row));
  if (parsed.diagnostics.length > 0) return changed;
  const before = readValid(row);
  const identities = reconcile(before, parsed.model);
  const after = parse(text, identities).model;
  const renameCandidates = trackRenames(readRenameCandidates(row), before, after, changed.revision);
  return {
    ...changed,
    name: nameIn(parsed),
    validText: text,
    identities: JSON.stringify(identities),
    renameCandidates: keepRenameCandidates(renameCandidates),
  };
}

/** The row with another name for one of its arrangements. */
export function withArrangementName(row: DesignRow, from: string, to: string): DesignRow {
  const choices = choicesOf(row);
  const arrangements = choices.arrangements.map((arrangement) =>
    arrangement.name === from ? { ...arrangement, name: to } : arrangement,
  );
  return withChoices(row, { ...choices, arrangements });
}

export function withChoices(row: DesignRow, choices: Choices): DesignRow {
  const written = keepChoices(choices);
  return keepChoices(choicesOf(row)) === written ? row : { ...next(row), choices: written };
}

/** What a revision kept of a design. */
export type KeptState = Pick<DesignRow, 'text' | 'validText' | 'identities' | 'choices'>;

/** The row with the state that an earlier revision kept, as a revision of its own. */
export function withState({ row, kept }: { readonly row: DesignRow; readonly kept: KeptState }): DesignRow {
  const restored = { ...next(row), ...kept };
  const renameCandidates = trackRenames(
    readRenameCandidates(row),
    readValid(row),
    readValid(restored),
    restored.revision,
  );
  return {
    ...restored,
    name: nameIn(readText(restored)),
    renameCandidates: keepRenameCandidates(renameCandidates),
  };
}

/** The row after something that came was declared to be what went, which the state before still has. */
export function withRename({
  row,
  before,
  rename,
}: {
  readonly row: DesignRow;
  readonly before: KeptState;
  readonly rename: { readonly from: string; readonly to: string };
}): DesignRow {
  const identities = declareRename(readValid(before), readValid(row), readIdentities(row), rename);
  const after = parse(row.validText, identities).model;
  const renameCandidates = trackRenames(readRenameCandidates(row), after, after, row.revision);
  return {
    ...next(row),
    identities: JSON.stringify(identities),
    renameCandidates: keepRenameCandidates(renameCandidates),
  };
}

/** The row after it was said that something that came is new: it is not asked for again. */
export function withoutQuestion(row: DesignRow, to: string): DesignRow {
  const candidates = readRenameCandidates(row);
  const added = candidates.added.filter(({ address }) => address !== to);
  return { ...row, renameCandidates: keepRenameCandidates({ ...candidates, added }) };
}
