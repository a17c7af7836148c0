import type { Declaration, Model } from '../model/index.js';
import { parse, print } from '../notation/index.js';
import type { Intake, Report, SourceLines } from './report.js';

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
    const atLine = new Map([...read.places].map(([id, { line }]) => [line, id]));
    for (const { place, message } of read.diagnostics) {
      const id = atLine.get(place.line) ?? addressAt(lines, place.line);
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
    asked: [...report.asked].sort((a, b) => a.line - b.line),
    leftOut: [...report.leftOut].sort((a, b) => a.line - b.line),
    problem: report.problem,
  };
}

/** The address of a statement that could not be read well enough to have a place. */
function addressAt(lines: readonly string[], line: number): string | null {
  const source = lines[line - 1] ?? '';
  const relationship =
    /^each (\S+) (?:owns|refers to|pairs with) \S+ ([A-Za-z0-9]+)(?: as ([A-Za-z0-9]+))?/.exec(source);
  if (relationship !== null) return `${relationship[1]}>${relationship[2]}:${relationship[3] ?? ''}`;
  const block = /^(?:entity|value) (\S+)/.exec(source);
  if (block !== null) return block[1] ?? null;
  const attribute = /^ {2}([A-Za-z0-9_]+):/.exec(source);
  if (attribute === null) return null;
  for (let above = line - 2; above >= 0; above--) {
    const owner = /^(?:entity|value) (\S+)/.exec(lines[above] ?? '');
    if (owner !== null) return `${owner[1]}.${attribute[1]}`;
  }
  return null;
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
