import type { ApiDocumentation, Operation, OperationDocumentation } from '../../contract/index.js';
import { sameJson, type Json } from '../../model/index.js';
import { compatible, cosmetic, type About } from '../change.js';
import { ENTRY } from '../align.js';
import type { Aligned, ContractChange } from '../types.js';

/** What is said of the API and its operations: texts travel nowhere; that something ends is what clients prepare for. */
export function* compareDocumentation({ before, after, pairs }: Aligned): Generator<ContractChange> {
  const whole: About = { where: 'everything', resource: ENTRY, reasons: [] };
  const { title, description, documentation } = after.contract;
  if (before.contract.title !== title) yield cosmetic(whole, `The API is called ${title} now.`);
  if (before.contract.description !== description) yield cosmetic(whole, 'The API is described otherwise.');
  yield* compareWhole(whole, before.contract.documentation, documentation);
  for (const { before: was, after: is, where } of pairs) {
    const about: About = { where, resource: is.resource, reasons: is.reasons };
    if (was.summary !== is.summary || !isSame(textsOf(was), textsOf(is)))
      yield cosmetic(about, `${where} is described otherwise.`);
    yield* compareEnds(about, where, endOf(was), endOf(is));
  }
}

/** Each part of what is said of the API, as it would be told. */
const TOLD: Readonly<Record<keyof ApiDocumentation, string>> = {
  summary: 'The API is summed up otherwise.',
  version: 'The document has another version.',
  contact: 'Somebody else is to be asked.',
  license: 'The license is another.',
  terms: 'The terms of service are elsewhere.',
  external: 'More is told of the API elsewhere.',
  servers: 'The API is said to be served elsewhere.',
  tags: 'Tags are called, described or ordered otherwise.',
  notes: 'What is said of parts of operations, or of errors, is otherwise.',
};

function* compareWhole(
  whole: About,
  before: ApiDocumentation,
  after: ApiDocumentation,
): Generator<ContractChange> {
  for (const [part, message] of Object.entries(TOLD) as [keyof ApiDocumentation, string][])
    if (!sameJson(comparedPart(before, part, before), comparedPart(after, part, before)))
      yield cosmetic(whole, message);
}

/** Contracts that were kept before tags had descriptions have none, which is no change: descriptions are compared where the one before has any. */
function comparedPart(of: ApiDocumentation, part: keyof ApiDocumentation, before: ApiDocumentation): Json {
  if (part !== 'tags' || before.tags.some(({ description }) => description !== null))
    return of[part] as unknown as Json;
  return of.tags.map((tag) => ({ ...tag, description: null })) as unknown as Json;
}

const isSame = (was: object | null, is: object | null): boolean =>
  sameJson(was as unknown as Json, is as unknown as Json);

const textsOf = ({ documentation, tags }: Operation): object => ({
  description: documentation?.description ?? null,
  external: documentation?.external ?? null,
  tags,
});

type End = Pick<OperationDocumentation, 'deprecated' | 'sunset' | 'successor' | 'isPublished'>;

const GOES_ON: End = { deprecated: null, sunset: null, successor: null, isPublished: true };

const endOf = ({ documentation }: Operation): End => documentation ?? GOES_ON;

function* compareEnds(about: About, where: string, was: End, is: End): Generator<ContractChange> {
  if (was.deprecated !== is.deprecated)
    yield compatible(
      about,
      is.deprecated === null
        ? `${where} is not deprecated any more.`
        : `${where} is deprecated from ${is.deprecated}.`,
    );
  if (was.sunset !== is.sunset)
    yield compatible(
      about,
      is.sunset === null ? `${where} has no end any more.` : `${where} stops answering on ${is.sunset}.`,
    );
  if (was.successor !== is.successor)
    yield cosmetic(
      about,
      is.successor === null
        ? `${where} names nothing to use in its place any more.`
        : `${where} names ${is.successor} to be used in its place.`,
    );
  if (was.isPublished !== is.isPublished)
    yield cosmetic(about, `${where} is ${is.isPublished ? 'published' : 'not published any more'}.`);
}
