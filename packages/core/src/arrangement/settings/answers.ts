import { FOR_ARRANGEMENT, FOR_OPERATION, options } from './row.js';

export const ANSWERS = {
  createAnswers: options({
    default: 'record',
    options: ['record', 'nothing'],
    title: 'Create answers',
    help: 'What a create answers besides the address of the new record (201): the record, or nothing.',
    levels: FOR_OPERATION,
  }),
  removeAnswers: options({
    default: 'nothing',
    options: ['nothing', 'record'],
    title: 'Remove answers',
    help: 'What a removal answers: nothing (204), or the record as it was (200).',
    levels: FOR_OPERATION,
  }),
  invalidStatus: options({
    default: 400,
    options: [400, 422],
    title: 'Does not fit',
    help: 'The status of a body that is JSON and does not fit: 400, or 422 (RFC 9110 §15.5.21).',
    levels: FOR_OPERATION,
  }),
  wrongId: options({
    default: 404,
    options: [404, 400],
    title: 'Id of another type',
    help: 'An id that cannot be one by its type (/routes/abc) is not there (404), or a mistake of its own (400).',
    levels: FOR_ARRANGEMENT,
  }),
};
