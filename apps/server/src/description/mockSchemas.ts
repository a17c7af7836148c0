import { closed, count, list, moment, object, ref, text, uuid } from './shapes.js';

const rate = { type: 'number', minimum: 0, maximum: 1 } as const;
const milliseconds = { type: 'number', minimum: 0, maximum: 60_000 } as const;
/** A fixed latency has ms, a uniform one from and to, a normal one mean and deviation. */
const LATENCY = {
  ms: milliseconds,
  from: milliseconds,
  to: milliseconds,
  mean: milliseconds,
  deviation: milliseconds,
};

const exchangeSummary = {
  number: count,
  at: moment,
  arrangement: { ...text, description: 'The arrangement it was sent to, or release and a label.' },
  client: text,
  method: text,
  target: text,
  operation: { type: ['string', 'null'] },
  status: { type: 'integer' },
  milliseconds: { type: 'number' },
};

const seedPlan = {
  seed: { type: 'integer', minimum: 0, maximum: 4294967295, description: '42 where nobody says.' },
  counts: {
    type: 'object',
    additionalProperties: { type: 'integer', minimum: 0, maximum: 1000000 },
    description: 'How many records of an entity, by its name.',
  },
  children: {
    type: 'object',
    additionalProperties: object({ least: count, most: count, shape: { enum: ['even', 'tail'] } }, ['shape']),
    description: 'How many records of an entity each of their owners gets, by its name.',
  },
  shares: {
    type: 'object',
    additionalProperties: { type: 'object', additionalProperties: { type: 'number', minimum: 0 } },
    description: 'How often each option of a choice is to be met, by Entity.attribute.',
  },
};

const message = object({
  head: text,
  body: text,
  cut: { type: 'boolean' },
  withheld: {
    type: ['integer', 'null'],
    description: 'The bytes of a body that may hold a secret and could not be masked.',
  },
});

/** The shapes of mocks and of what they have seen. */
export const MOCK_SCHEMAS: Readonly<Record<string, object>> = {
  NewMock: closed(
    object(
      {
        design: uuid,
        arrangements: { type: 'array', items: text, maxItems: 20, uniqueItems: true },
        releases: {
          type: 'array',
          items: text,
          maxItems: 20,
          uniqueItems: true,
          description: 'Labels. A release that the records cannot be served under gets a mock of its own.',
        },
        port: {
          type: 'integer',
          minimum: 1024,
          maximum: 65535,
          description: 'The next free one from 4811 when left out.',
        },
        ...seedPlan,
      },
      ['releases', 'port', ...Object.keys(seedPlan)],
    ),
  ),
  Mock: object({
    id: uuid,
    design: uuid,
    arrangements: list(text),
    baseUrls: { type: 'object', additionalProperties: { type: 'string', format: 'uri' } },
    releases: { ...list(text), description: 'Labels of releases that share its records.' },
    releaseUrls: { type: 'object', additionalProperties: { type: 'string', format: 'uri' } },
    port: count,
    running: { type: 'boolean' },
    seed: count,
    records: count,
    exchanges: count,
    servesRevision: count,
    troubles: { ...count, description: 'How many entries tell what goes wrong on purpose.' },
    obstacles: { ...list(text), description: 'Why a newer model is not served yet.' },
    shortfalls: {
      ...list(object({ entity: text, wanted: count, made: count, why: text })),
      description: 'Entities that got fewer seed records than wanted when the mock was made or reset.',
    },
  }),
  Seeding: closed(object(seedPlan, Object.keys(seedPlan))),
  Records: {
    type: 'object',
    additionalProperties: list({ type: 'object' }),
    description: 'Records by the names of the model, an array for each entity and pairing.',
  },
  Migration: object({
    from: { ...count, description: 'The revision that is served.' },
    to: { ...count, description: 'The newest sound revision.' },
    steps: list(
      object({
        id: text,
        message: text,
        records: { ...count, description: 'How many records it is about.' },
        first: { ...list(text), description: 'The keys of the first of them.' },
        offers: list(object({ do: { enum: ['fill', 'convert', 'drop'] }, means: text })),
      }),
    ),
  }),
  Decision: object(
    {
      do: { enum: ['fill', 'convert', 'drop'] },
      value: { description: 'What is filled in.' },
      otherwise: { ...ref('Decision'), description: 'About those that cannot be converted.' },
    },
    ['value', 'otherwise'],
  ),
  Decisions: closed(
    object({
      decisions: {
        type: 'object',
        description: 'By the ids of steps.',
        additionalProperties: ref('Decision'),
      },
    }),
  ),
  KindOfRecord: object({
    kind: text,
    records: count,
    hasSecrets: { type: 'boolean', description: 'Whether something of it is write-only.' },
  }),
  RecordsOfKind: list({ type: 'object' }),
  TakenIn: object({
    done: { type: 'boolean', description: 'False where it was only checked.' },
    kinds: list(object({ kind: text, added: count, changed: count, unchanged: count, removed: count })),
  }),
  Troubles: closed(
    object({
      seed: { ...count, description: 'The same number gives the same run.' },
      items: list(
        object(
          {
            operation: text,
            latency: object(
              { kind: { enum: ['fixed', 'uniform', 'normal'] }, ...LATENCY },
              Object.keys(LATENCY),
            ),
            failures: list(object({ status: { enum: [429, 500, 502, 503, 504] }, rate })),
            drop: rate,
            bytesPerSecond: { type: 'integer', minimum: 1, description: 'How fast bodies are sent.' },
          },
          ['operation', 'latency', 'failures', 'drop', 'bytesPerSecond'],
        ),
      ),
    }),
  ),
  NewSnapshot: closed(object({ name: text })),
  Snapshot: object({ name: text, takenAt: moment, records: count }),
  NewMessage: closed(
    object(
      {
        message: {
          type: 'string',
          description: 'Request line, header lines, an empty line, a body (RFC 9112).',
        },
        arrangement: { ...text, description: 'The first one of the mock where nothing is named.' },
        release: { ...text, description: 'The label of a release that it serves.' },
      },
      ['arrangement', 'release'],
    ),
  ),
  SentMessage: object({ lastExchange: count }),
  ExchangeSummary: object(exchangeSummary),
  Exchange: object({
    ...exchangeSummary,
    request: message,
    response: message,
    trace: list(object({ step: text, outcome: { enum: ['passed', 'stopped'] }, text })),
    candidates: {
      ...list(object({ operation: text, address: text, why: text })),
      description: 'Other operations it might have been meant for.',
    },
    records: list(
      object({
        entity: text,
        key: {},
        effect: { enum: ['added', 'changed', 'removed'] },
        before: { type: ['object', 'null'] },
        after: { type: ['object', 'null'] },
      }),
    ),
  }),
};
