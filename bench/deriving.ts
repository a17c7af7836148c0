// Parse and derive at growing sizes, in whatever runs this: a worker of the browser, or Node.
import { arrangementOf, NO_CHOICES, type Arrangement } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { parse } from '@isomeros/core/notation';
import { growthExponent, median } from './measure.js';
import { modelText } from './models.js';

const SIZES = [50, 100, 200, 500, 1_000];
const MOST_GROWTH = 1.2;
const SAMPLE_BUDGET = 10;
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
    security: ['basic', 'bearer', 'api key'],
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

const cells = (...values: readonly (string | number)[]): string =>
  values.map((value) => String(value).padStart(14)).join('');

const judged = (time: number, budget: number | undefined): string =>
  budget === undefined ? '' : `${time <= budget ? 'within' : 'OVER'} ${budget}`;

function* measured(title: string, arrangement: Arrangement, sample: string): Generator<string> {
  yield `\n${title}`;
  yield cells('entities', 'relationships', 'operations', 'milliseconds', 'budget');
  const sampleTime = median(20, () => parseAndDerive(sample, arrangement));
  const ofSample = parseAndDerive(sample, arrangement);
  yield cells(
    'the sample',
    ofSample.relationships,
    ofSample.operations,
    sampleTime.toFixed(1),
    judged(sampleTime, SAMPLE_BUDGET),
  );
  const points: (readonly [size: number, time: number])[] = [];
  for (const size of SIZES) {
    const text = modelText(size);
    const { relationships, operations } = parseAndDerive(text, arrangement);
    const time = median(15, () => parseAndDerive(text, arrangement));
    points.push([size, time]);
    yield cells(size, relationships, operations, time.toFixed(1), judged(time, BUDGETS.get(size)));
  }
  const growth = growthExponent(points);
  yield `Time grows with the size to the power of ${growth.toFixed(2)}, ${growth <= MOST_GROWTH ? 'within' : 'OVER'} ${MOST_GROWTH}.`;
}

/** The lines of the report, each as soon as it is known. */
export function* derivingMeasured(sample: string): Generator<string> {
  yield* measured('As a new design is arranged', PLAIN, sample);
  yield* measured('With everything chosen that adds to a contract', EVERYTHING, sample);
}
