import { FOR_ARRANGEMENT, FOR_OPERATION, options } from './row.js';

export const ANSWERS = {
  createAnswers: options({
    default: 'record',
    options: ['record', 'nothing', 'see other'],
    labels: { record: '201 + body', nothing: '201', 'see other': '303' },
    title: 'Create answers',
    help: 'What a create answers: the record, nothing but its address, or 303 to that address (RFC 9110 §15.3.2, §15.4.4).',
    levels: FOR_OPERATION,
  }),
  replaceAnswers: options({
    default: 'record',
    options: ['record', 'nothing'],
    labels: { record: '200 + body', nothing: '204' },
    title: 'Replace answers',
    help: 'What a replacement answers: the record as it is now, or nothing (RFC 9110 §9.3.4).',
    levels: FOR_OPERATION,
  }),
  removeAnswers: options({
    default: 'nothing',
    options: ['nothing', 'record'],
    labels: { nothing: '204', record: '200 + body' },
    title: 'Remove answers',
    help: 'What a removal answers: nothing, or the record as it was (RFC 9110 §9.3.5).',
    levels: FOR_OPERATION,
  }),
  manyAnswers: options({
    default: 'counts',
    options: ['counts', 'records'],
    title: 'An action on many answers',
    help: 'How many records it was about and how many it changed, or the records as they are then.',
    levels: FOR_OPERATION,
  }),
  actionAnswers: options({
    default: 'record',
    options: ['record', 'nothing', 'see other'],
    labels: { record: '200 + body', nothing: '204', 'see other': '303' },
    title: 'Actions answer',
    help: 'What a transition or an action of your own answers: the record, nothing, or 303 to its address (RFC 9110 §15.4.4).',
    levels: FOR_OPERATION,
  }),
  invalidStatus: options({
    default: 400,
    options: [400, 422],
    title: 'Invalid body',
    help: 'The status of a body that is JSON and does not fit: 400, or 422 (RFC 9110 §15.5.21).',
    levels: FOR_OPERATION,
  }),
  wrongId: options({
    default: 404,
    options: [404, 400],
    title: 'Id of the wrong type',
    help: 'An id that cannot be one by its type (/routes/abc) is not there (404), or a mistake of its own (400).',
    levels: FOR_ARRANGEMENT,
  }),
};
