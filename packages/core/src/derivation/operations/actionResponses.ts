import { MOST_ACTED_ON } from '../../arrangement/index.js';
import { phrase } from '../../model/index.js';
import type { ResolvedCustom } from '../customOperations/index.js';
import type { Add } from './protocolResponses.js';
import type { Situation } from './situation.js';

/** What an answer says of where a record is. */
export const namesIt = ({ isAddressed }: Situation): string => (isAddressed ? ' Location names it' : '');

/** What an action answers once it is done. */
export function addDone({ answer }: Situation, done: string, noun: string, add: Add): void {
  const settings = ['actionAnswers'] as const;
  switch (answer) {
    case 'record':
      add(200, 'ok', 'status.ok', () => `${done}; the body is the ${noun} as it is now.`, settings);
      return;
    case 'nothing':
      add(204, 'ok', 'status.ok', () => `${done}.`, settings);
      return;
    case 'see other':
      add(303, 'ok', 'status.ok', () => `${done}; Location names the ${noun}.`, settings);
      return;
  }
}

/** What an operation of one's own answers once it is done. */
export function addActed(situation: Situation, noun: string, add: Add): void {
  const { own } = situation;
  switch (own?.custom.kind) {
    case 'verify':
      addVerified(own, noun, add);
      return;
    case 'many':
      addManyDone(own, noun, add);
      return;
    case 'revoke':
      add(204, 'ok', 'operation.revoke', () => 'The token that was sent holds no longer.');
      return;
    case 'create':
      addMade(situation, own.custom.entity, add);
      return;
    case 'query':
      add(200, 'ok', 'status.ok', () => 'The records that it looks for, at most as many as it answers.');
      return;
    case 'find':
      add(
        200,
        'ok',
        'status.elsewhere',
        () => `The ${noun} is there. Content-Location names its own address.`,
      );
      return;
    case 'assign':
    case 'aggregate':
    case 'caller':
    case 'fixed':
    case undefined:
      addDone(situation, 'It is done', noun, add);
      return;
  }
}

function addManyDone({ custom }: ResolvedCustom, noun: string, add: Add): void {
  if (custom.kind !== 'many') return;
  const told = custom.answers === 'counts' ? 'how many' : 'the records';
  add(200, 'ok', 'operation.many', () => `It is done to all of them; the body is ${told}.`, ['manyAnswers']);
  add(
    409,
    'state',
    'operation.many',
    () => `It is not allowed for one ${noun} or more; the answer names each, and none is changed.`,
  );
  if (custom.over.kind === 'condition')
    add(
      409,
      'too-many',
      'operation.many',
      () => `More than ${MOST_ACTED_ON} records meet the condition; the answer says how many.`,
    );
}

function addVerified({ operation, custom }: ResolvedCustom, noun: string, add: Add): void {
  const isToken = custom.kind === 'verify' && custom.answers.kind === 'token';
  const told = isToken ? 'a token that stands for it' : `the ${noun}`;
  add(200, 'ok', 'operation.verify', () => `What was sent matches one ${noun}; the body is ${told}.`);
  const failure = operation.effect.kind === 'verify' ? operation.effect.failure : 'missing';
  const status = failure === 'missing' ? 404 : 401;
  add(status, 'unmatched', 'operation.verify', () => 'What was sent matches nothing; it is not told why.');
}

function addMade(situation: Situation, entity: string, add: Add): void {
  const made = phrase(entity);
  const named = namesIt(situation);
  const when = `The ${made} is stored${named === '' ? '' : `.${named}`}; the body is the ${made}.`;
  add(201, 'created', 'status.created', () => when);
}
