import { compare } from '@isomeros/core/comparison';
import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  completeModel,
  NO_CHOICES,
  plainArrangement,
  type Choices,
} from '@isomeros/core/arrangement';
import {
  openAssumptions,
  withAnswer,
  type Answer,
  type Assumption,
  type Contract,
} from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { editText, parse, print } from '@isomeros/core/notation';
import fc from 'fast-check';
import { anyModel, modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { rounds } from '../support/rounds.js';

const contractOf = (text: string, choices: Choices = NO_CHOICES): Contract =>
  derive(completeModel(modelOf(text), choices), arrangementOf('main', choices));

const asked = ({ assumptions }: Contract): readonly string[] => assumptions.map(({ question }) => question);

function optionOf(
  contract: Contract,
  question: string,
  label: string,
): { assumption: Assumption; answer: Answer } {
  const assumption = contract.assumptions.find((candidate) => candidate.question === question);
  const option = assumption?.options.find((candidate) => candidate.label === label);
  if (assumption === undefined || option === undefined) throw new Error(`Nobody asks ${question} ${label}`);
  return { assumption, answer: option.answer };
}

/** The text and the choices after an option was chosen, as the interface does it. */
function chosen(text: string, question: string, label: string): { text: string; choices: Choices } {
  const { assumption, answer } = optionOf(contractOf(text), question, label);
  switch (answer.kind) {
    case 'accept':
      return { text, choices: { ...NO_CHOICES, answered: [assumption.id] } };
    case 'setting':
    case 'word':
      return { text, choices: withAnswer(NO_CHOICES, 'main', answer) };
    case 'edit':
      return { text: editText(text, parse(text), answer.edit), choices: NO_CHOICES };
    case 'name':
    case 'placement':
    case 'exposure':
    case 'custom':
    case 'link':
    case 'own-link':
    case 'documentation':
    case 'said':
    case 'example':
      throw new Error('Nothing in the text answers it.');
  }
}

test('an unusual plural is asked about, and another one is called so everywhere', () => {
  const text = 'entity Person\n\nentity Box\n\nentity Sheep\n\nentity City\n';
  const question = 'Plural of person?';
  expect(asked(contractOf(text))).toEqual([
    expect.stringContaining('What is the id'),
    'How many records come in one page when nobody says?',
    question,
    'Plural of sheep?',
  ]);
  const other = chosen(text, question, 'persons');
  const contract = contractOf(other.text, other.choices);
  expect(contract.resources.map(({ path }) => path)).toContain('/persons');
  expect(contract.operations.map(({ id }) => id)).toContain('listPersons');
  expect(contract.resources[0]?.links.map(({ relation }) => relation)).toContain('persons');
  expect(contract.assumptions.find((one) => one.question === question)?.settled).toBe(true);
});

const OWNED = 'entity Route\n\nentity Sailing\n\nentity Vessel\n\n';

describe('assumptions', () => {
  test('the sample leaves these open', () => {
    expect(asked(contractOf(kestrelText))).toEqual([
      'Can a sailing exist without its route?',
      'Can a cabin exist without its vessel?',
      'Can there be two bookings that are the same?',
      'Can there be two passengers that are the same?',
      'Can there be two operators that are the same?',
      'Can there be two notices that are the same?',
      'What is the id of a sailing and 6 more?',
      'How many records come in one page when nobody says?',
    ]);
  });

  test.each<readonly [string, string, readonly string[]]>([
    ['nothing is asked of an empty design', '', []],
    [
      'what only its owner leads to is owned beyond doubt',
      `${OWNED}each Route owns many Sailing as sailings, back as route`,
      ['What is the id of a route and 2 more?', 'How many records come in one page when nobody says?'],
    ],
    [
      'what something else leads to as well may stand alone',
      `${OWNED}each Route owns many Sailing as sailings, back as route\neach Sailing refers to optional Vessel as vessel, back as sailings`,
      [
        'Can a sailing exist without its route?',
        'What is the id of a route and 2 more?',
        'How many records come in one page when nobody says?',
      ],
    ],
    [
      'roles that nobody named',
      'entity Order\n  code: text, key\n\nentity Item\n  code: text, key\n\neach Order owns many Item',
      [
        'What does an order call its item?',
        'What does an item call the order it belongs to?',
        'How many records come in one page when nobody says?',
      ],
    ],
  ])('%s', (_name, text, questions) => {
    expect(asked(contractOf(text))).toEqual(questions);
  });

  test('an answer by a setting holds, is told as set, and is not asked again', () => {
    const { choices } = chosen(kestrelText, 'How many records come in one page when nobody says?', '50');
    const contract = contractOf(kestrelText, choices);
    const list = contract.operations.find(({ id }) => id === 'listRoutes');
    expect(list?.query.find(({ role }) => role === 'size')).toMatchObject({ default: 50 });
    const levels = list?.query.flatMap(({ reasons }) => reasons.flatMap(({ because }) => because));
    expect(levels).toContainEqual({
      kind: 'setting',
      name: 'pageSize',
      value: 50,
      level: 'design',
    });
    expect(openAssumptions(contract, choices.answered).map(({ id }) => id)).not.toContain('page.size');
  });

  test('ids are uuids where that was chosen, in paths, shapes and references', () => {
    const { choices } = chosen(kestrelText, 'What is the id of a sailing and 6 more?', 'random uuid');
    const contract = contractOf(kestrelText, choices);
    const item = contract.resources.find(({ path }) => path.endsWith('/{sailingId}'));
    expect(item?.segments.at(-1)).toMatchObject({ type: { kind: 'uuid' } });
    const booking = contract.shapes.find(({ name }) => name === 'Booking');
    expect(booking?.members.find(({ name }) => name === 'id')?.type).toEqual({ kind: 'uuid' });
    expect(booking?.members.find(({ name }) => name === 'cabinId')?.type).toEqual({ kind: 'uuid' });
  });

  test('what may exist alone gets paths of its own', () => {
    const { text } = chosen(kestrelText, 'Can a sailing exist without its route?', 'Yes');
    const { pathsAdded, pathsRemoved } = compare(
      { kind: 'draft', contract: contractOf(kestrelText) },
      { kind: 'draft', contract: contractOf(text) },
    ).summary;
    expect(pathsAdded).toContain('/api/v1/sailings/{sailingId}');
    expect(pathsRemoved).toContain('/api/v1/routes/{routeNumber}/sailings/{sailingId}');
  });

  test.each<readonly [text: string, question: string, options: readonly string[]]>([
    ['password: text', 'Is the password of a member ever returned?', ['Yes', 'Never: write-only']],
    [
      'resetToken: text(4..9), required',
      'Is the reset token of a member ever returned?',
      ['Yes', 'Never: write-only'],
    ],
    [
      'createdAt: instant, required',
      'Who makes the created at of a member?',
      ['The client', 'The server at creation'],
    ],
    [
      'updatedAt: instant, required',
      'Who makes the updated at of a member?',
      ['The client', 'The server at every change'],
    ],
    ['uuid: uuid, required', 'Who makes the uuid of a member?', ['The client', 'The server at creation']],
    ['guid: uuid, key', 'Who makes the guid of a member?', ['The client', 'The server at creation']],
    [
      'name: text, required\n  memberCode: text, required\n  joinedOn: date, required',
      'Can there be two members that are the same?',
      ['Yes', 'No, member code is unique', 'No, name is unique'],
    ],
  ])('%s: %s', (attributes, question, labels) => {
    const text = `entity Member\n  ${attributes}\n`;
    const found = contractOf(text).assumptions.find((one) => one.question === question);
    expect(found?.options.map(({ label }) => label)).toEqual(labels);
    for (const label of labels.slice(1)) {
      const after = chosen(text, question, label);
      expect(parse(after.text).diagnostics).toEqual([]);
      expect(asked(contractOf(after.text))).not.toContain(question);
    }
  });

  test('a secret that is kept out of answers is not asked about', () => {
    const arrangement = {
      ...plainArrangement('main'),
      exposures: { Member: { 'Member.password': { out: 'no' } as const } },
    };
    const contract = contractOf('entity Member\n  password: text\n', {
      ...NO_CHOICES,
      arrangements: [arrangement],
    });
    expect(contract.assumptions.filter(({ id }) => id.startsWith('secret:'))).toEqual([]);
  });

  test('what is owned may be unique within its owner', () => {
    const text = `${OWNED.replace('entity Sailing\n', 'entity Sailing\n  berth: text, required\n')}each Route owns many Sailing as sailings, back as line\n`;
    const after = chosen(
      text,
      'Can there be two sailings that are the same?',
      'No, berth is unique within its route',
    );
    expect(after.text).toContain('berth: text, required, unique within line');
  });

  test.each([
    'password: text, write-only',
    'token: text, key',
    'passwordHint: text',
    'tokens: integer',
    'createdAt: instant',
    'createdAt: instant, generated',
    'createdBy: instant, required',
    'uuid: uuid, generated',
    'partnerUuid: uuid, required',
    'code: text, required, unique',
    'code: text, key',
    'name: text',
    'name: text, required\n  unique (name)',
  ])('nothing of it is asked about %j', (attributes) => {
    const { assumptions } = contractOf(`entity Member\n  ${attributes}\n`);
    const kinds = assumptions.map(({ id }) => id.split(':')[0]);
    expect(kinds.filter((kind) => kind === 'secret' || kind === 'made')).toEqual([]);
    if (/unique|key|text$/.test(attributes)) expect(kinds).not.toContain('twice');
  });

  test('an answer that was agreed to is remembered under its statement', () => {
    const { choices } = chosen(kestrelText, 'Can a sailing exist without its route?', 'No');
    expect(choices.answered).toEqual(['existence:Route>Sailing:sailings']);
    const open = openAssumptions(contractOf(kestrelText), choices.answered);
    expect(open.map(({ question }) => question)).not.toContain('Can a sailing exist without its route?');
  });

  test('of every question of any model exactly one option is assumed, and every edit leaves a sound text', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const text = print(model);
        const parsed = parse(text);
        for (const { options, question } of contractOf(text).assumptions) {
          expect([question, options.filter(({ assumed }) => assumed).length]).toEqual([question, 1]);
          for (const { answer } of options) {
            if (answer.kind !== 'edit' || answer.edit.kind === 'turn-around') continue;
            expect(parse(editText(text, parsed, answer.edit)).diagnostics).toEqual([]);
          }
        }
      }),
      rounds(80),
    );
  });
});

describe('findings of the model', () => {
  const mended = (text: string, id: string, index = 0): Contract => {
    const finding = contractOf(text).findings.find((candidate) => candidate.id === id);
    const mend = finding?.quickFixes?.[index];
    if (mend?.answer.kind !== 'edit') throw new Error(`${id} has no mend in the text.`);
    return contractOf(editText(text, parse(text), mend.answer.edit));
  };

  const CIRCLE =
    'entity Hen\n\nentity Egg\n\neach Hen refers to one Egg as origin\neach Egg refers to one Hen as layer';

  test('a creation that is impossible names the references that could be optional', () => {
    const [finding] = contractOf(CIRCLE).findings;
    expect(finding).toMatchObject({ id: 'create.impossible', severity: 'error', about: 'Hen' });
    expect(finding?.quickFixes?.map(({ title }) => title)).toEqual(['Make origin optional']);
    expect(mended(CIRCLE, 'create.impossible').findings).toEqual([]);
  });

  const LEFT = `${OWNED}value Spare\n  size: integer\n\neach Route owns many Sailing as sailings, back as route`;

  test('what nothing joins, and what nothing has, may be left over', () => {
    expect(contractOf(LEFT).findings.map(({ id, about }) => [id, about])).toEqual([
      ['model.leftover', 'Vessel'],
      ['value.unused', 'Spare'],
    ]);
    expect(mended(LEFT, 'model.leftover').findings.map(({ id }) => id)).toEqual(['value.unused']);
    expect(mended(LEFT, 'value.unused').findings.map(({ id }) => id)).toEqual(['model.leftover']);
  });

  test('a model without any relationship is no heap of leftovers', () => {
    expect(contractOf(OWNED).findings).toEqual([]);
  });
});
