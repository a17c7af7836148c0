import { memoize } from '../model/index.js';
import { indexContract, wholePath } from './lookup.js';
import { PROTOCOL_ANSWERS } from './protocolAnswers.js';
import { headersOfOperation, noteOn, parameterSubject, responseSubject } from './documented.js';
import type { Operation } from './operation.js';
import type { Contract } from './types.js';

/** Everything by which an operation can be found: its path, members, statuses, tags, and every text about it. */
export const searchTexts = memoize((contract: Contract): ReadonlyMap<string, string> => {
  const titles = new Map(contract.documentation.tags.map(({ id, title }) => [id, title]));
  const shapes = new Map(
    contract.shapes.map(({ name, members }) => [
      name,
      members.map((member) => `${member.name} ${member.description ?? ''}`).join(' '),
    ]),
  );
  return new Map(
    contract.operations.map((operation) => {
      const { id, method, resource, summary, documentation, tags, accepts, returns } = operation;
      const texts = [
        method,
        wholePath(contract, resource),
        id,
        summary,
        documentation?.description ?? '',
        documentation?.deprecated == null ? '' : 'deprecated',
        documentation?.isPublished === false ? 'unpublished' : '',
        ...tags.map((tag) => titles.get(tag) ?? tag),
        shapes.get(accepts ?? '') ?? '',
        accepts === returns ? '' : (shapes.get(returns ?? '') ?? ''),
        listedText(contract, shapes, returns),
        ...parameterTexts(contract, operation),
        ...answerTexts(contract, operation),
        ...headerTexts(contract, operation),
      ];
      return [id, texts.join(' ')];
    }),
  );
});

/** The members of what a page lists. */
function listedText(contract: Contract, shapes: ReadonlyMap<string, string>, returns: string | null): string {
  const page = indexContract(contract).shapes.get(returns ?? '');
  const items = page?.members.find(({ source }) => source.kind === 'items');
  return items?.type.kind === 'list' && items.type.of.kind === 'shape'
    ? (shapes.get(items.type.of.shape) ?? '')
    : '';
}

const parameterTexts = (contract: Contract, operation: Operation): readonly string[] =>
  operation.query.map(
    (parameter) =>
      `${parameter.name} ${noteOn(contract, 'parameter', parameterSubject(contract, operation, parameter))?.description ?? ''}`,
  );

/** Statuses, and when they happen where that is about the operation. */
const answerTexts = (contract: Contract, operation: Operation): readonly string[] =>
  operation.responses.map((response) => {
    const note = noteOn(contract, 'response', responseSubject(operation, response))?.description ?? '';
    return `${response.status} ${PROTOCOL_ANSWERS.has(response.code) ? '' : response.when} ${note}`;
  });

/** What is said of headers; where nothing is, nobody has to look which there are. */
const headerTexts = (contract: Contract, operation: Operation): readonly string[] =>
  Object.keys(contract.documentation.notes.header).length === 0
    ? []
    : headersOfOperation(contract, operation).map(
        ({ name, subject }) => `${name} ${noteOn(contract, 'header', subject)?.description ?? ''}`,
      );
