import { describe, expect, test } from '@jest/globals';
import { editedStatement, type Model, type ModelEdit } from '@isomeros/core/model';
import { editText, parse, print } from '@isomeros/core/notation';
import fc from 'fast-check';
import { kestrelText } from '../support/samples.js';
import { anyModel } from '../support/models.js';
import { rounds } from '../support/rounds.js';

/** Every edit there is, of every statement it can concern. */
function editsOf(model: Model): readonly ModelEdit[] {
  return model.declarations.flatMap((item): ModelEdit[] => {
    if (item.kind === 'entity' || item.kind === 'value')
      return item.attributes.flatMap((attribute): ModelEdit[] => [
        { kind: 'change-attribute', attribute: attribute.id, change: { writeOnly: !attribute.writeOnly } },
        { kind: 'remove', statement: attribute.id },
      ]);
    return [
      { kind: 'name-role', relationship: item.id, role: 'anotherRole' },
      { kind: 'name-way-back', relationship: item.id, back: 'anotherWay' },
      { kind: 'drop-way-back', relationship: item.id },
      { kind: 'turn-around', relationship: item.id },
      { kind: 'make-optional', relationship: item.id },
      { kind: 'remove', statement: item.id },
    ];
  });
}

describe('editText', () => {
  test.each<readonly [string, ModelEdit, string, string]>([
    [
      'what was owned refers instead',
      { kind: 'turn-around', relationship: 'Route>Sailing:sailings' },
      'each Route owns many Sailing as sailings, back as route',
      'each Sailing refers to one Route as route, back as sailings',
    ],
    [
      'a role is named',
      { kind: 'name-way-back', relationship: 'Booking>Passenger:passengers', back: 'booking' },
      'each Booking owns many Passenger as passengers',
      'each Booking owns many Passenger as passengers, back as booking',
    ],
    [
      'a reference becomes optional',
      { kind: 'make-optional', relationship: 'Vessel>Harbour:homePort' },
      'each Vessel refers to one Harbour as homePort, back as fleet',
      'each Vessel refers to optional Harbour as homePort, back as fleet',
    ],
    [
      'an attribute changes a flag, its note stays',
      { kind: 'change-attribute', attribute: 'CrewMember.pin', change: { writeOnly: false } },
      'pin: text(4..8), write-only "Opens the crew doors; never shown"',
      'pin: text(4..8) "Opens the crew doors; never shown"',
    ],
  ])('%s', (_name, edit, before, after) => {
    expect(kestrelText).toContain(before);
    expect(editText(kestrelText, parse(kestrelText), edit)).toBe(kestrelText.replace(before, after));
  });

  test('an edit of what is no longer there changes nothing', () => {
    const edit: ModelEdit = { kind: 'turn-around', relationship: 'Nothing>Here:now' };
    expect(editText(kestrelText, parse(kestrelText), edit)).toBe(kestrelText);
  });

  test('whatever is edited, comments and lines elsewhere stay byte for byte', () => {
    fc.assert(
      fc.property(anyModel, fc.nat(), fc.nat({ max: 30 }), (model, pick, at) => {
        const lines = print(model).split('\n');
        lines.splice(at % lines.length, 0, `# a comment of its own, ${pick}`);
        const text = lines.join('\n');
        const parsed = parse(text);
        const all = editsOf(parsed.model);
        const edit = all[pick % Math.max(1, all.length)];
        if (edit === undefined) return;
        const place = parsed.places.get(editedStatement(edit));
        if (place === undefined) throw new Error('Every statement has a place.');
        const after = editText(text, parsed, edit).split('\n');
        const mayGo = (line: number): boolean =>
          line >= place.line - commentsAbove(lines, place.line) - 1 && line <= place.endLine + 1;
        const kept = lines.filter((_line, index) => !mayGo(index + 1));
        for (const line of kept) expect(after).toContain(line);
        if (edit.kind !== 'remove') expect(after.length).toBe(lines.length);
      }),
      rounds(200),
    );
  });
});

function commentsAbove(lines: readonly string[], line: number): number {
  let count = 0;
  while (lines[line - 2 - count]?.trimStart().startsWith('#') === true) count++;
  return count;
}
