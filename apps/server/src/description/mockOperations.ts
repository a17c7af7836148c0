import type { Described } from './described.js';

/** What can be done with mocks. */
export const MOCK_OPERATIONS: Readonly<Record<string, Described>> = {
  'GET /api/mocks': {
    summary: 'List the mocks',
    status: 200,
    answers: 'Mock',
    list: true,
    parameters: ['design'],
    problems: [],
  },
  'POST /api/mocks': {
    summary: 'Create a mock and start it',
    body: 'NewMock',
    status: 201,
    answers: 'Mock',
    headers: ['Location'],
    problems: ['invalid', 'not-found', 'conflict', 'media-type'],
  },
  'GET /api/mocks/{id}': { summary: 'Read a mock', status: 200, answers: 'Mock', problems: ['not-found'] },
  'DELETE /api/mocks/{id}': {
    summary: 'Stop a mock and remove it with its records',
    status: 204,
    problems: ['not-found'],
  },
  'POST /api/mocks/{id}/start': {
    summary: 'Start a mock',
    status: 200,
    answers: 'Mock',
    problems: ['not-found', 'conflict'],
  },
  'POST /api/mocks/{id}/stop': {
    summary: 'Stop a mock; its records stay',
    status: 200,
    answers: 'Mock',
    problems: ['not-found'],
  },
  'POST /api/mocks/{id}/reset': {
    summary: 'Put fresh seed records in place of all',
    status: 200,
    answers: 'Mock',
    problems: ['not-found', 'unavailable'],
  },
  'POST /api/mocks/{id}/messages': {
    summary: 'Send a message to a mock as it travels',
    body: 'NewMessage',
    status: 202,
    answers: 'SentMessage',
    problems: ['invalid', 'not-found', 'conflict', 'media-type', 'unavailable'],
  },
  'GET /api/mocks/{id}/exchanges': {
    summary: 'List the exchanges of a mock, newest first',
    status: 200,
    answers: 'ExchangeSummary',
    list: true,
    parameters: ['limit', 'cursor'],
    headers: ['Link'],
    problems: ['not-found', 'bad-parameter'],
  },
  'GET /api/mocks/{id}/exchanges/{number}': {
    summary: 'Read one exchange with its trace',
    status: 200,
    answers: 'Exchange',
    problems: ['not-found'],
  },
  'GET /api/mocks/{id}/events': {
    summary: 'Follow a mock: exchanges and changes as they happen',
    status: 200,
    stream: true,
    parameters: ['lastEventId'],
    problems: ['not-found'],
  },
};
