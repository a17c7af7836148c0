// Parse and derive, as the worker does at each keystroke, at growing sizes. Run: npm run bench
import { readFileSync } from 'node:fs';
import { arrangementOf, NO_CHOICES, type Arrangement } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { parse } from '@isomeros/core/notation';
import { growthExponent, median } from './measure.js';
import { modelText } from './models.js';

const SIZES = [50, 100, 200, 500, 1_000];
const MOST_GROWTH = 1.2;
const BUDGETS: ReadonlyMap<number, number> = new Map([
  [200, 150],
  [1_000, 1_200],
]);

const PLAIN = arrangementOf('main', NO_CHOICES);

/** Everything that adds to a contract, chosen. */
const EVERYTHING = arrangementOf('main', {
  ...NO_CHOICES,
  settings: {
    filterThrough: 'on',
    search: 'on',
    fields: 'on',
    expand: 'on',
    expandDepth: 3,
    security: 'basic, bearer, api key',
    access: 'role',
    ifMatch: 'required',
    idempotency: 'required',
    wrongId: 400,
    versionIn: 'header',
  },
});

function parseAndDerive(
  text: string,
  arrangement: Arrangement,
): { readonly relationships: number; readonly operations: number } {
  const { model, diagnostics } = parse(text);
  const [first] = diagnostics;
  if (first !== undefined) throw new Error(`Line ${first.place.line}: ${first.message}`);
  const { operations } = derive(model, arrangement);
  const relationships = model.declarations.filter(({ kind }) => kind !== 'entity' && kind !== 'value').length;
  return { relationships, operations: operations.length };
}

const say = (...cells: readonly (string | number)[]): void =>
  console.log(cells.map((cell) => String(cell).padStart(14)).join(''));

const judged = (time: number, budget: number | undefined): string =>
  budget === undefined ? '' : `${time <= budget ? 'within' : 'OVER'} ${budget}`;

const sample = readFileSync(new URL('../samples/kestrel-sound-ferries.iso.txt', import.meta.url), 'utf8');

function measure(title: string, arrangement: Arrangement): void {
  console.log(`\n${title}`);
  say('entities', 'relationships', 'operations', 'milliseconds', 'budget');
  const sampleTime = median(20, () => parseAndDerive(sample, arrangement));
  const ofSample = parseAndDerive(sample, arrangement);
  say(
    'the sample',
    ofSample.relationships,
    ofSample.operations,
    sampleTime.toFixed(1),
    judged(sampleTime, 10),
  );
  const points = SIZES.map((size) => {
    const text = modelText(size);
    const { relationships, operations } = parseAndDerive(text, arrangement);
    const time = median(7, () => parseAndDerive(text, arrangement));
    say(size, relationships, operations, time.toFixed(1), judged(time, BUDGETS.get(size)));
    return [size, time] as const;
  });
  const growth = growthExponent(points);
  console.log(
    `Time grows with the size to the power of ${growth.toFixed(2)}, ${growth <= MOST_GROWTH ? 'within' : 'OVER'} ${MOST_GROWTH}.`,
  );
}

measure('As a new design is arranged', PLAIN);
measure('With everything chosen that adds to a contract', EVERYTHING);
