import { entryOf, type Declaration, type Model } from '../model/index.js';
import { parse, print } from '../notation/index.js';
import type { SourceLines } from './lines.js';
import { COUNTED_KINDS, type CountedKind, type Intake, type IntakeCount, type Report } from './report.js';

const ROUNDS = 12;
const NOWHERE: SourceLines = { line: 1, endLine: 1 };

/**
 * The account of a source that was read as these declarations. What the notation would refuse is left out
 * and accounted for, so that the text never has errors.
 */
export function finishIntake(name: string, declarations: readonly Declaration[], report: Report): Intake {
  const from = new Map(report.understood.map((item) => [item.statement, item]));
  let model: Model = { name, description: null, comments: [], declarations, trailingComments: [] };
  let text = print(model);
  let read = parse(text);
  for (let round = 0; read.diagnostics.length > 0 && round < ROUNDS; round++) {
    const refused = new Set<string>();
    const lines = text.split('\n');
    const blocks = blocksOf(lines);
    const atLine = new Map([...read.places].map(([id, { line }]) => [line, id]));
    for (const { place, message } of read.diagnostics) {
      const id = atLine.get(place.line) ?? addressAt(lines, blocks, place.line);
      if (id === null || refused.has(id)) continue;
      refused.add(id);
      report.leave(from.get(id) ?? NOWHERE, lines[place.line - 1] ?? '', message);
    }
    model = without(model, refused);
    text = print(model);
    read = parse(text);
  }
  if (read.diagnostics.length > 0) {
    report.problem = `What was read contradicts itself: ${read.diagnostics[0]?.message ?? ''}`;
    text = print({ ...model, declarations: [] });
    read = parse(text);
  }
  const places = Object.fromEntries(
    [...read.places].map(([id, { line, endLine }]) => [id, { line, endLine }]),
  );
  return {
    model: read.model,
    text,
    places,
    understood: report.understood.filter(({ statement }) => read.places.has(statement)),
    assumed: [...report.assumed].sort((a, b) => a.line - b.line),
    asked: [...report.asked].sort((a, b) => a.line - b.line),
    leftOut: [...report.leftOut].sort((a, b) => a.line - b.line),
    counts: countsOf(report, read.places),
    records: report.records,
    problem: report.problem,
  };
}

type OpenCount = { -readonly [Key in keyof IntakeCount]: IntakeCount[Key] };

const none = (kind: CountedKind) => (): OpenCount => ({
  kind,
  found: 0,
  understood: 0,
  asked: 0,
  leftOut: 0,
});

/** What became of everything that was counted. What the notation refused is left out. */
function countsOf(
  { tallied, askedAbout, saidBy, records }: Report,
  places: ReadonlyMap<string, unknown>,
): readonly IntakeCount[] {
  const counts = new Map<CountedKind, OpenCount>();
  for (const { kind, statement: counted, count: many } of tallied) {
    const statement = counted === null ? null : (saidBy.get(counted) ?? counted);
    const count = entryOf(counts, kind, none(kind));
    count.found += many;
    if (statement === null || !places.has(statement)) count.leftOut += many;
    else if (askedAbout.has(statement)) count.asked += many;
    else count.understood += many;
  }
  // Whether those that were read fit is seen by whoever keeps them.
  if (records.length > 0) {
    const count = entryOf(counts, 'records', none('records'));
    count.found += records.length;
    count.understood += records.length;
  }
  return COUNTED_KINDS.flatMap((kind) => counts.get(kind) ?? []);
}

/** The block that each line stands in; `null` before the first. */
function blocksOf(lines: readonly string[]): readonly (string | null)[] {
  let block: string | null = null;
  return lines.map((line) => (block = BLOCK.exec(line)?.[1] ?? block));
}

const BLOCK = /^(?:entity|value) (\S+)/;

/** The address of a statement that could not be read well enough to have a place. */
function addressAt(
  lines: readonly string[],
  blocks: readonly (string | null)[],
  line: number,
): string | null {
  const source = lines[line - 1] ?? '';
  const relationship =
    /^each (\S+) (?:owns|refers to|pairs with) \S+ ([A-Za-z0-9]+)(?: as ([A-Za-z0-9]+))?/.exec(source);
  if (relationship !== null) return `${relationship[1]}>${relationship[2]}:${relationship[3] ?? ''}`;
  const block = BLOCK.exec(source);
  if (block !== null) return block[1] ?? null;
  const attribute = /^ {2}([A-Za-z0-9_]+):/.exec(source);
  const owner = blocks[line - 1] ?? null;
  return attribute === null || owner === null ? null : `${owner}.${attribute[1]}`;
}

function without(model: Model, refused: ReadonlySet<string>): Model {
  const isKept = ({ id }: { readonly id: string }): boolean => !refused.has(id);
  const declarations = model.declarations.filter(isKept).map((declaration): Declaration => {
    if (declaration.kind === 'value')
      return { ...declaration, attributes: declaration.attributes.filter(isKept) };
    if (declaration.kind !== 'entity') return declaration;
    return {
      ...declaration,
      attributes: declaration.attributes.filter(isKept),
      uniques: declaration.uniques.filter(isKept),
    };
  });
  return { ...model, declarations };
}
