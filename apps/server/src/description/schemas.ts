import { DESIGN_FILE_SCHEMA, PART_NAMES, partNamed } from '@isomeros/core/arrangement';
import { SOURCE_FORMATS } from '../designs/designs.dto.js';
import { MOCK_SCHEMAS } from './mockSchemas.js';
import { closed, count, list, moment, object, ref, text, uuid } from './shapes.js';

/** What can be decided about an arrangement. */
const decided = Object.fromEntries(PART_NAMES.map((part) => [part, partNamed(part).schema]));

const figures = object({
  entities: count,
  relationships: count,
  paths: count,
  operations: count,
  findings: object({ error: count, doubtful: count }),
  assumptions: count,
});

const summary = {
  id: uuid,
  name: text,
  revision: count,
  createdAt: moment,
  changedAt: moment,
  arrangements: list(object({ name: text })),
  sound: {
    type: 'boolean',
    description: 'Whether the saved text has no errors; figures are those of the last sound one.',
  },
  figures: ref('Figures'),
  fingerprint: list(object({ effects: list({ enum: ['safe', 'idempotent', 'neither'] }), depth: count })),
};

/** As it is published, without what says that it is a document of its own. */
const designFile: object = Object.fromEntries(
  Object.entries(DESIGN_FILE_SCHEMA).filter(([keyword]) => !keyword.startsWith('$')),
);

const revision = {
  number: count,
  at: moment,
  what: { enum: ['begun', 'text', 'choices', 'rename', 'restored'] },
  sound: { type: 'boolean' },
  lines: object({ added: count, removed: count }),
};

const place = { line: count, column: count, length: count };

/** The shapes of the application's own interface, as JSON Schemas (2020-12). */
export const SCHEMAS: Readonly<Record<string, object>> = {
  Figures: figures,
  DesignSummary: object(summary),
  Design: object({
    ...summary,
    text,
    validText: text,
    identities: { type: 'object', additionalProperties: text },
    diagnostics: list(ref('Diagnostic')),
    choices: ref('Choices'),
    possibleRenames: {
      ...list(object({ kind: text, from: text, to: text })),
      description: 'What went and what came in its place: each may have been a rename.',
    },
  }),
  Choices: closed(
    object(
      {
        settings: { type: 'object', description: 'From names of settings to their values.' },
        arrangements: {
          ...list(object({ name: text, ...decided }, Object.keys(decided))),
          minItems: 1,
          description: 'What was decided about each arrangement. One, called main, where it is left out.',
        },
        answered: { ...list(text), description: 'Ids of assumptions that somebody agreed to.' },
      },
      ['arrangements'],
    ),
  ),
  Name: closed(object({ name: { type: 'string', minLength: 1, maxLength: 120 } })),
  Rename: closed(
    object({
      from: { type: 'string', description: 'The address of what went.' },
      to: { type: 'string', description: 'The address of what came.' },
      renamed: { type: 'boolean', description: 'Whether one became the other.' },
    }),
  ),
  RevisionSummary: object(revision),
  Revision: object({ ...revision, text, choices: ref('Choices') }),
  NewRelease: closed(
    object({ label: { type: 'string', pattern: '^[A-Za-z0-9][A-Za-z0-9._-]{0,59}$' }, arrangement: text }),
  ),
  Release: object({
    label: text,
    arrangement: text,
    version: text,
    revision: count,
    operations: count,
    madeAt: moment,
    end: { anyOf: [ref('ReleaseEnd'), { type: 'null' }] },
  }),
  ReleaseEnd: closed(
    object(
      {
        deprecatedAt: { ...moment, description: 'From when it is not to be used any more.' },
        sunsetAt: { type: ['string', 'null'], format: 'date-time', description: 'When it stops answering.' },
        successor: {
          anyOf: [closed(object({ release: text })), closed(object({ arrangement: text })), { type: 'null' }],
        },
      },
      ['sunsetAt', 'successor'],
    ),
  ),
  Change: object({
    weight: { enum: ['breaking', 'compatible', 'cosmetic'] },
    breaks: { enum: ['sender', 'reader', null], description: 'Who is broken: who sends, or who reads.' },
    message: text,
    where: text,
    resource: { ...text, description: 'The resource of the contract there is now.' },
    reasons: { type: 'array' },
  }),
  DesignFile: designFile,
  LiveSchemaAddress: closed(
    object(
      {
        host: text,
        port: { type: 'integer', minimum: 1, maximum: 65535 },
        user: text,
        password: { type: 'string', writeOnly: true },
        schema: text,
        remote: { type: 'boolean', description: 'Confirms that the host need not be on this machine.' },
      },
      ['remote'],
    ),
  ),
  LiveSchema: object({ ddl: text, tables: count, views: count }),
  Diagnostic: object({
    code: text,
    message: text,
    place: object(place),
    fix: { anyOf: [object({ title: text, place: object(place), replacement: text }), { type: 'null' }] },
  }),
  NewDesign: closed(
    object(
      {
        name: {
          type: 'string',
          minLength: 1,
          maxLength: 120,
          description: 'Takes the place of the name in the text.',
        },
        source: closed(object({ format: { enum: SOURCE_FORMATS }, text })),
      },
      ['name'],
    ),
  ),
  Model: closed(
    object({ text: { type: 'string', description: 'The model in its notation, at most 1 MiB.' } }),
  ),
  ProblemKinds: {
    type: 'object',
    additionalProperties: object({ status: { type: 'integer' }, title: text }),
  },
  Sample: object({
    id: text,
    name: text,
    description: { type: ['string', 'null'] },
    text,
    figures: ref('Figures'),
    fingerprint: { type: 'array' },
  }),
  Arrangement: object({
    ...decided,
    name: text,
    settings: list(
      object({ name: text, title: text, value: {}, level: { enum: ['default', 'design', 'arrangement'] } }),
    ),
  }),
  ArrangementChoices: closed(
    object(
      decided,
      PART_NAMES.filter((part) => part !== 'settings'),
    ),
  ),
  ArrangementName: closed(object({ name: { type: 'string', minLength: 1, maxLength: 60 } })),
  Contract: {
    type: 'object',
    description: 'Resources, operations, shapes, findings and assumptions, each with its reasons.',
  },
  OpenApi: { type: 'object', description: 'An OpenAPI 3.1 document.' },
  ...MOCK_SCHEMAS,
  Problem: object(
    {
      type: { type: 'string', format: 'uri-reference' },
      title: text,
      status: { type: 'integer' },
      detail: text,
      errors: list(
        object({ pointer: text, parameter: text, code: text, message: text }, ['pointer', 'parameter']),
      ),
    },
    ['errors'],
  ),
};
