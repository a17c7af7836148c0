import { type Operation, type OperationDocumentation } from '../../contract/index.js';
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
  if (!isSame(before.contract.documentation, documentation))
    yield cosmetic(whole, 'What else is said of the API is otherwise.');
  for (const { before: was, after: is, where } of pairs) {
    const about: About = { where, resource: is.resource, reasons: is.reasons };
    if (was.summary !== is.summary || !isSame(textsOf(was), textsOf(is)))
      yield cosmetic(about, `${where} is described otherwise.`);
    yield* compareEnds(about, where, endOf(was), endOf(is));
  }
}

const isSame = (was: object | null, is: object | null): boolean =>
  sameJson(was as unknown as Json, is as unknown as Json);

const textsOf = ({ documentation }: Operation): object | null =>
  documentation === null
    ? null
    : { description: documentation.description, external: documentation.external };

type End = Pick<OperationDocumentation, 'deprecated' | 'sunset' | 'isPublished'>;

const GOES_ON: End = { deprecated: null, sunset: null, isPublished: true };

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
  if (was.isPublished !== is.isPublished)
    yield cosmetic(about, `${where} is ${is.isPublished ? 'published' : 'not published any more'}.`);
}
