import { history, redo, undo } from '@codemirror/commands';
import { EditorState, type Transaction } from '@codemirror/state';
import { describe, expect, test } from '@jest/globals';
import { editedStatement, type ModelEdit } from '@isomeros/core/model';
import { editText, parse } from '@isomeros/core/notation';
import fc from 'fast-check';
import { minimalChange } from '../src/model/minimalChange.js';
import {
  applyEdit,
  unusedName,
  writeAttribute,
  writeBlock,
  writeRelationship,
} from '../src/model/sheets/edits.js';
import { rounds } from '../../../packages/core/test/support/rounds.js';

const TEXT = `design "Small"

# about routes
entity Route "A line"
  # what it is called
  name: text(1..60), required  # behind it
  state: choice(open, shut), default open
    close: open -> shut

entity Sailing
  departsAt: instant

# the one sentence
each Route owns many Sailing as sailings, back as route
`;

describe('minimalChange', () => {
  test('makes one text of another, whatever they are, and is null only for the same', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (before, after) => {
        const change = minimalChange(before, after);
        const made =
          change === null ? before : before.slice(0, change.from) + change.insert + before.slice(change.to);
        expect(made).toBe(after);
        expect(change === null).toBe(before === after);
      }),
      rounds(100),
    );
  });
});

/** An editor without a page: a text with its history. */
class Editor {
  state = EditorState.create({ doc: TEXT, extensions: [history({ newGroupDelay: 0 })] });
  private readonly dispatch = (transaction: Transaction): void => {
    this.state = transaction.state;
  };

  get text(): string {
    return this.state.doc.toString();
  }

  /** Typing, or what a sheet or an answer writes: each is a change of the text. */
  become(text: string): void {
    const change = minimalChange(this.text, text);
    if (change !== null) this.dispatch(this.state.update({ changes: change, userEvent: 'input' }));
  }

  undo(): boolean {
    return undo({ state: this.state, dispatch: this.dispatch });
  }

  redo(): boolean {
    return redo({ state: this.state, dispatch: this.dispatch });
  }
}

describe('undo and redo', () => {
  const edits: readonly ModelEdit[] = [
    { kind: 'turn-around', relationship: 'Route>Sailing:sailings' },
    { kind: 'name-role', relationship: 'Route>Sailing:sailings', role: 'trips' },
    { kind: 'drop-way-back', relationship: 'Route>Sailing:sailings' },
    { kind: 'change-attribute', attribute: 'Route.name', change: { unique: true } },
    { kind: 'remove', statement: 'Sailing.departsAt' },
    { kind: 'remove', statement: 'Route.state' },
  ];
  const step = fc.oneof(
    fc.constantFrom(...edits).map((edit) => (text: string) => editText(text, parse(text), edit)),
    fc.tuple(fc.nat(), fc.string({ maxLength: 6 })).map(
      ([at, typed]) =>
        (text: string) =>
          text.slice(0, at % (text.length + 1)) + typed + text.slice(at % (text.length + 1)),
    ),
  );

  test('lead back and forth over typing and sheets to the same bytes', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        const editor = new Editor();
        for (const next of steps) editor.become(next(editor.text).replace(/\r\n?/g, '\n'));
        const last = editor.text;
        while (editor.undo());
        expect(editor.text).toBe(TEXT);
        while (editor.redo());
        expect(editor.text).toBe(last);
      }),
      rounds(150),
    );
  });

  test('every edit of the table concerns a statement that is there', () => {
    const { places } = parse(TEXT);
    expect(edits.map((edit) => places.has(editedStatement(edit)))).toEqual(edits.map(() => true));
  });
});

describe('what sheets write', () => {
  const { model } = parse(TEXT);
  const route = model.declarations.find((item) => item.kind === 'entity' && item.name === 'Route');
  const owns = model.declarations.find((item) => item.kind === 'owns');
  if (route?.kind !== 'entity' || owns?.kind !== 'owns') throw new Error('The text has both.');
  const [name, state] = route.attributes;
  if (name === undefined || state === undefined) throw new Error('Route has two attributes.');

  test.each([
    [
      'an attribute, its comment behind it untouched',
      writeAttribute({ ...name, unique: true }),
      '  name: text(1..60), required  # behind it',
      '  name: text(1..60), required, unique  # behind it',
    ],
    [
      'an attribute with another transition',
      writeAttribute({
        ...state,
        lifeCycle: [
          ...(state.lifeCycle ?? []),
          {
            kind: 'transition',
            id: 'x',
            name: 'open',
            from: ['shut'],
            to: 'open',
            when: null,
            description: null,
            comments: [],
          },
        ],
      }),
      '    close: open -> shut\n',
      '    close: open -> shut\n    open: shut -> open\n',
    ],
    [
      'a block',
      writeBlock({ ...route, description: 'Another' }),
      'entity Route "A line"',
      'entity Route "Another"',
    ],
    [
      'a relationship',
      writeRelationship({ ...owns, onRemove: 'restrict' }),
      'back as route\n',
      'back as route, on remove restrict\n',
    ],
  ])('%s', (_name, edit, before, after) => {
    expect(applyEdit(TEXT, {}, edit)).toBe(TEXT.replace(before, after));
  });

  test('a statement that is gone meanwhile changes nothing', () => {
    expect(applyEdit('design "Other"\n', {}, writeAttribute(name))).toBe('design "Other"\n');
  });

  test('a name that is taken gets a number', () => {
    expect(unusedName('Spare', new Set())).toBe('Spare');
    expect(unusedName('Spare', new Set(['Spare', 'Spare2']))).toBe('Spare3');
  });
});
