import { expect, test } from '@jest/globals';
import {
  arrangementOf,
  keepPlurals,
  NO_CHOICES,
  plainArrangement,
  readDesignFile,
  type Choices,
  type KeptDesign,
} from '@isomeros/core/arrangement';
import { withAnswer, type Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { editText, parse } from '@isomeros/core/notation';

const TEXT = `design "Optics"
# A remark.
entity Camera
  name: text
entity Lens
  name: text
entity Foreman
  name: text
each Camera owns many Lens   # not on the root
each Camera pairs with many Foreman
`;

const CHOICES: Choices = {
  ...NO_CHOICES,
  arrangements: [plainArrangement('main'), { ...plainArrangement('other'), words: { Lens: 'glass' } }],
};

const derived = ({ text, identities, choices }: KeptDesign, name = 'main'): Contract =>
  derive(parse(text, identities).model, arrangementOf(name, choices));

const pathsOf = (contract: Contract): readonly string[] => contract.resources.map(({ path }) => path);

const keptOf = ({ findings }: Contract): typeof findings => findings.filter(({ id }) => id === 'plural.kept');

/** What the version before the table of nouns derived. */
const BEFORE = [
  '/cameras',
  '/cameras/{cameraId}',
  '/cameras/{cameraId}/lens',
  '/cameras/{cameraId}/lens/{lensId}',
];

test('a design of before keeps the paths that it had, and a new one has the ones of today', () => {
  const design = { text: TEXT, identities: {}, choices: CHOICES };
  const kept = keepPlurals(design);
  expect(kept.text).toBe(
    TEXT.replace('many Lens ', 'many Lens as lens ')
      .replace('as lens   #', 'as lens  #')
      .replace('many Foreman', 'many Foreman as foremans'),
  );
  expect(pathsOf(derived(kept))).toEqual(expect.arrayContaining([...BEFORE, '/foremans']));
  expect(pathsOf(derived(kept, 'other'))).toContain('/foremans');
  expect(pathsOf(derived(design))).toEqual(
    expect.arrayContaining(['/cameras/{cameraId}/lenses', '/foremen']),
  );
  expect(keptOf(derived(design))).toEqual([]);
  expect(keepPlurals(kept)).toEqual(kept);
});

test('each plural that was kept is told, and one step puts it right', () => {
  let design = keepPlurals({ text: TEXT, identities: {}, choices: CHOICES });
  const told = keptOf(derived(design));
  expect(told).toHaveLength(4);
  for (const [fix] of told.map(({ quickFixes }) => quickFixes ?? [])) {
    const { answer } = fix ?? {};
    if (answer?.kind === 'edit')
      design = { ...design, text: editText(design.text, parse(design.text, design.identities), answer.edit) };
    else if (answer !== undefined)
      design = { ...design, choices: withAnswer(design.choices, 'main', answer) };
  }
  expect(keptOf(derived(design))).toEqual([]);
  expect(pathsOf(derived(design))).toEqual(
    expect.arrayContaining(['/cameras/{cameraId}/lenses', '/foremen']),
  );
});

test.each([
  [3, 'Lens'],
  [4, undefined],
])('a design file of version %d has %s as a word', (version, word) => {
  const file = { format: 'isomeros-design', version, name: 'Optics', model: TEXT, choices: CHOICES };
  const read = readDesignFile(JSON.stringify(file));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  expect(read.design.choices.arrangements[0]?.words['Lens/plural']).toBe(word);
  expect(read.design.model.includes('as lens')).toBe(word !== undefined);
});
