import type { StatementPlace } from './statementPlace.js';
import {
  attributeAddress,
  declarationAddress,
  transitionAddress,
  utf8Length,
  type Declaration,
  type Identities,
  type Model,
} from '../model/index.js';
import { emptyBlock, reportBlockCase, type Block } from './block.js';
import { DIAGNOSTIC_CODES, type Diagnostic, type DiagnosticCode } from './diagnostics.js';
import { attributeProblem, ModelSize, transitionProblem, uniqueRuleProblem } from './limits.js';
import { LineReader } from './lineReader.js';
import { readAttribute } from './readAttribute.js';
import { readRelationship } from './readRelationship.js';
import { looksLikeTransition, readTransition } from './readTransition.js';
import { resolve } from './resolve.js';
import { beginsStatement, statementFixes } from './statementFixes.js';
import { tokenize } from './tokens.js';

/** The largest text that is read, in bytes of UTF-8: 1 MiB. */
export const MAX_TEXT_BYTES = 1_048_576;

export interface ParseResult {
  /** What could be read. Statements with an error are left out; their neighbours are not. */
  readonly model: Model;
  /** In the order of the text. Empty when the model is sound. */
  readonly diagnostics: readonly Diagnostic[];
  /** By the identity of the element. */
  readonly places: ReadonlyMap<string, StatementPlace>;
}

/** Reads a model from its notation. Total: it never throws and never stops at the first error. */
export function parse(text: string, identities: Identities = {}): ParseResult {
  const bytes = utf8Length(text);
  if (bytes > MAX_TEXT_BYTES) return tooLarge(bytes);
  const reader = new TextReader(identities);
  const lines = text.split(/\r\n|\n|\r/);
  lines.forEach((line, index) => {
    reader.line(line, index + 1);
  });
  return reader.finish(lines);
}

function tooLarge(bytes: number): ParseResult {
  const message = `${DIAGNOSTIC_CODES['text.too-large']} It has ${bytes} bytes; the limit is ${MAX_TEXT_BYTES}.`;
  return {
    model: { name: '', description: null, comments: [], declarations: [], trailingComments: [] },
    diagnostics: [{ code: 'text.too-large', message, place: { line: 1, column: 1, length: 1 }, fixes: [] }],
    places: new Map(),
  };
}

class TextReader {
  private readonly diagnostics: Diagnostic[] = [];
  private readonly places = new Map<string, StatementPlace>();
  private readonly declarations: (Declaration | Block)[] = [];
  private design: { name: string; description: string | null; comments: readonly string[] } | null = null;
  private comments: string[] = [];
  private block: Block | null = null;
  private readonly size = new ModelSize();
  /** True after a line that should have opened a block but could not: its lines are passed over. */
  private blockLost = false;

  constructor(private readonly identities: Identities) {}

  line(source: string, number: number): void {
    const indent = this.indentation(source, number);
    const tokens = tokenize(source, number);
    for (const problem of tokens.problems) {
      this.diagnostics.push(problem);
    }
    if (tokens.comment !== null) this.comments.push(tokens.comment);
    if (tokens.tokens.length === 0) return;
    const end = { line: number, column: source.length + 1, length: 1 };
    const reader = new LineReader(tokens, end, this.diagnostics);
    if (indent > 0 && beginsStatement(reader.peek(), reader.peek(1)))
      this.reportIndentedStatement(reader, indent, number);
    else if (indent > 0) {
      this.member(reader, indent, source, number);
      return;
    }
    this.declaration(reader, source, number);
  }

  finish(lines: readonly string[]): ParseResult {
    const declarations = resolve(this.declarations, this.diagnostics, this.places, lines);
    const model: Model = {
      name: this.design?.name ?? '',
      description: this.design?.description ?? null,
      comments: this.design?.comments ?? [],
      declarations,
      trailingComments: this.comments,
    };
    this.diagnostics.sort((a, b) => a.place.line - b.place.line || a.place.column - b.place.column);
    return { model, diagnostics: this.diagnostics, places: this.places };
  }

  private indentation(source: string, line: number): number {
    const space = /^[ \t]*/.exec(source)?.[0] ?? '';
    if (space.length === source.length) return 0;
    if (space.includes('\t')) {
      const place = { line, column: 1, length: space.length };
      const replacement = space.replaceAll('\t', '  ');
      const fix = { title: 'Use two spaces', place, replacement };
      this.diagnostics.push({
        code: 'indent.tab',
        message: 'Indent by two spaces, not by a tab.',
        place,
        fixes: [fix],
      });
      return replacement.length;
    }
    return space.length;
  }

  private reportIndentedStatement(reader: LineReader, indent: number, line: number): void {
    const place = { line, column: 1, length: indent };
    const message = `A statement that begins with ${reader.peek()?.text ?? ''} stands at the margin.`;
    reader.report('indent.width', message, place, [
      { title: 'Move it to the margin', place, replacement: '' },
    ]);
  }

  private declaration(reader: LineReader, source: string, line: number): void {
    this.block = null;
    this.blockLost = false;
    const word = reader.next();
    switch (word?.text) {
      case 'design':
        this.readDesign(reader, line);
        return;
      case 'entity':
      case 'value':
        this.openBlock(word.text, reader, source, line);
        return;
      case 'each':
        this.relationship(reader, source, line);
        return;
      default: {
        this.blockLost = true;
        const place = word?.place ?? { line, column: 1, length: 1 };
        const message = 'A statement begins with design, entity, value or each.';
        reader.report(
          'statement.unknown',
          message,
          place,
          reader.guessed(() => statementFixes(reader.all())),
        );
      }
    }
  }

  private readDesign(reader: LineReader, line: number): void {
    const comments = this.takeComments();
    const name = reader.next();
    if (name?.kind !== 'string') {
      reader.report(
        'syntax.expected',
        'Expected the name of the design in quotes.',
        name?.place ?? reader.here(),
      );
      return;
    }
    const description = reader.description();
    reader.finish();
    if (this.design !== null) {
      reader.report('design.duplicate', 'The design has a name already.', { ...name.place, line });
      return;
    }
    this.design = { name: name.value, description, comments };
  }

  private openBlock(kind: 'entity' | 'value', reader: LineReader, source: string, line: number): void {
    const comments = this.takeComments();
    const name = reader.word(`the name of the ${kind}`);
    if (name === null) {
      this.blockLost = true;
      return;
    }
    if (!/^[A-Z][A-Za-z0-9]*$/.test(name.text)) reportBlockCase(reader, kind, name.text, name.place);
    const description = reader.description();
    reader.finish();
    const id = this.identity(name.text);
    this.block = emptyBlock(kind, id, name.text, description, comments);
    const isKnown = this.places.has(id);
    const tooMany = isKnown ? null : this.size.block();
    if (isKnown || tooMany !== null) {
      // Its lines are read for their errors, and belong to nothing.
      this.block = { ...this.block, id: `${id}#again` };
      if (tooMany !== null) reader.report('model.too-large', tooMany, name.place);
      else reader.report('name.duplicate', `There is an entity or a value ${name.text} already.`, name.place);
      return;
    }
    this.declarations.push(this.block);
    this.place(id, source, line);
  }

  private member(reader: LineReader, indent: number, source: string, line: number): void {
    const place = { line, column: 1, length: indent };
    if (this.block === null) {
      this.comments = [];
      if (this.blockLost) return;
      reader.report(
        'indent.width',
        'An indented line belongs to an entity or a value; there is none above.',
        place,
      );
      return;
    }
    if (indent > 2 && looksLikeTransition(reader)) {
      this.transition(reader, this.block, source, line);
      return;
    }
    if (indent !== 2) {
      const fix = { title: 'Indent by two spaces', place, replacement: '  ' };
      reader.report('indent.width', 'A line of a block is indented by two spaces.', place, [fix]);
    }
    const second = reader.peek(1);
    if (reader.peek()?.text === 'unique' && second?.text === '(')
      this.uniqueRule(reader, this.block, source, line);
    else this.attribute(reader, this.block, source, line);
    this.extend(this.block.id, line);
  }

  private uniqueRule(reader: LineReader, block: Block, source: string, line: number): void {
    const comments = this.takeComments();
    reader.next();
    reader.next();
    const names: string[] = [];
    do {
      const name = reader.word('the name of an attribute or role');
      if (name === null) return;
      names.push(name.text);
    } while (reader.take(','));
    if (!reader.expect(')')) return;
    const description = reader.description();
    reader.finish();
    const tooMany = uniqueRuleProblem(block, names);
    if (tooMany !== null) {
      this.reportLine(reader, 'model.too-large', tooMany, source, line);
      return;
    }
    const id = this.identity(`${block.name}(${names.join()})`);
    block.uniques.push({ kind: 'unique', id, names, description, comments });
    this.place(id, source, line);
  }

  private attribute(reader: LineReader, block: Block, source: string, line: number): void {
    const attribute = readAttribute(reader, this.takeComments());
    if (attribute === null) return;
    const id = this.identity(attributeAddress(block.name, attribute.name));
    if (block.attributes.some((known) => known.name === attribute.name)) {
      const column = source.indexOf(attribute.name) + 1;
      const message = `${block.name} has an attribute ${attribute.name} already.`;
      reader.report('name.duplicate', message, { line, column, length: attribute.name.length });
      return;
    }
    const tooMany = attributeProblem(block, attribute.type);
    if (tooMany !== null) {
      this.reportLine(reader, 'model.too-large', tooMany, source, line);
      return;
    }
    block.attributes.push({ ...attribute, id });
    this.place(id, source, line);
  }

  private transition(reader: LineReader, block: Block, source: string, line: number): void {
    const transition = readTransition(reader, this.takeComments());
    const attribute = block.attributes.at(-1);
    if (transition === null) return;
    const report = (code: DiagnosticCode, message: string): void => {
      this.reportLine(reader, code, message, source, line);
    };
    if (block.kind === 'value' || attribute?.type.kind !== 'choice') {
      report('cycle.misplaced', 'A transition stands under an attribute of an entity that is a choice.');
      return;
    }
    const known = attribute.lifeCycle ?? [];
    if (known.some(({ name }) => name === transition.name)) {
      report('name.duplicate', `${attribute.name} has a transition ${transition.name} already.`);
      return;
    }
    const tooMany = transitionProblem(known);
    if (tooMany !== null) {
      report('model.too-large', tooMany);
      return;
    }
    const id = this.identity(transitionAddress(block.name, attribute.name, transition.name));
    block.attributes[block.attributes.length - 1] = {
      ...attribute,
      lifeCycle: [...known, { ...transition, id }],
    };
    this.place(id, source, line);
    this.extend(attribute.id, line);
    this.extend(block.id, line);
  }

  /** Makes the place of a block or an attribute reach down to a line. */
  private extend(id: string, line: number): void {
    const place = this.places.get(id);
    if (place !== undefined) this.places.set(id, { ...place, endLine: line });
  }

  private relationship(reader: LineReader, source: string, line: number): void {
    const read = readRelationship(reader, this.takeComments());
    if (read === null) return;
    const draft = { ...read.relationship, id: '' };
    const id = this.identity(declarationAddress(draft));
    if (this.places.has(id)) {
      const message = 'The same relationship stands above; give one of them another role.';
      this.reportLine(reader, 'role.duplicate', message, source, line);
      return;
    }
    const tooMany = this.size.relationship(draft);
    if (tooMany !== null) {
      this.reportLine(reader, 'model.too-large', tooMany, source, line);
      return;
    }
    this.declarations.push({ ...draft, id });
    this.place(id, source, line);
  }

  /** Reports what is wrong with a whole line. */
  private reportLine(
    reader: LineReader,
    code: DiagnosticCode,
    message: string,
    source: string,
    line: number,
  ): void {
    const start = source.length - source.trimStart().length;
    reader.report(code, message, { line, column: start + 1, length: source.trim().length });
  }

  private takeComments(): readonly string[] {
    const comments = this.comments;
    this.comments = [];
    return comments;
  }

  private place(id: string, source: string, line: number): void {
    if (this.places.has(id)) return;
    const start = source.length - source.trimStart().length;
    this.places.set(id, { line, endLine: line, column: start + 1, length: source.trim().length });
  }

  private identity(address: string): string {
    return Object.hasOwn(this.identities, address) ? (this.identities[address] ?? address) : address;
  }
}
