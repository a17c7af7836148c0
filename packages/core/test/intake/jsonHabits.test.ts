import { describe, expect, test } from '@jest/globals';
import { importModel, type Intake, type IntakeFormat } from '@isomeros/core/intake';
import { parse } from '@isomeros/core/notation';
import { unanswered } from '../support/unanswered.js';

const read = (format: IntakeFormat, value: unknown, record?: string): Intake =>
  importModel(format, JSON.stringify(value), 'Habits', record === undefined ? {} : { record });

/** The statements of a model without its name. */
const said = ({ text }: Intake): string => text.replace('design "Habits"\n\n', '').trim();

const text = { type: 'string' };
const object = (properties: object, more: object = {}): object => ({ type: 'object', properties, ...more });

interface Case {
  readonly name: string;
  readonly schema: object;
  readonly is: string;
  readonly leftOut?: readonly string[];
  readonly assumed?: readonly string[];
}

const CASES: readonly Case[] = [
  {
    name: 'variants beside properties may be there, and are required where every one asks for them',
    schema: object(
      { id: { type: 'integer' }, name: text },
      {
        title: 'Ticket',
        required: ['name'],
        oneOf: [
          object({ kind: { const: 'single' }, seat: text }, { required: ['kind', 'seat'] }),
          object({ kind: { const: 'group' }, size: { type: 'integer' } }, { required: ['kind'] }),
        ],
      },
    ),
    is: 'entity Ticket\n  name: text, required\n  kind: choice(single, group), required\n  seat: text\n  size: integer',
    assumed: ['What some variants have may be there.'],
  },
  {
    name: 'what a condition adds may be there',
    schema: object(
      { id: { type: 'integer' }, country: text },
      {
        title: 'Address',
        if: { properties: { country: { const: 'NO' } } },
        then: object({ postcode: { type: 'string', pattern: '^[0-9]{4}$' } }, { required: ['postcode'] }),
        else: object({ region: text }),
      },
    ),
    is: 'entity Address\n  country: text\n  postcode: text, pattern "[0-9]{4}"\n  region: text',
    assumed: ['What some variants have may be there.'],
  },
  {
    name: 'numbers that are listed are a range, and told where it has gaps',
    schema: object(
      { id: { type: 'integer' }, deck: { enum: [3, 1, 2] }, size: { type: 'integer', enum: [1, 5] } },
      { title: 'Cabin' },
    ),
    is: 'entity Cabin\n  deck: integer(1..3)\n  size: integer(1..5)',
    leftOut: ['size: enum 1, 5'],
  },
  {
    name: 'steps are scales, or told; bounds may be out themselves, in either draft',
    schema: object(
      {
        id: { type: 'integer' },
        fare: { type: 'number', multipleOf: 0.01, exclusiveMinimum: 0 },
        weight: { type: 'number', exclusiveMinimum: 0, maximum: 9 },
        depth: { type: 'number', minimum: 0, exclusiveMinimum: true },
        seats: { type: 'integer', multipleOf: 5, exclusiveMaximum: 100 },
      },
      { title: 'Sailing' },
    ),
    is: 'entity Sailing\n  fare: decimal(0.01.., scale 2)\n  weight: decimal(>0..9)\n  depth: decimal(>0..)\n  seats: integer(..99)',
    leftOut: ['seats: multipleOf 5'],
  },
  {
    name: 'a list at the root is of records',
    schema: {
      title: 'Harbours',
      type: 'array',
      items: object({ code: text, name: text }, { required: ['code'] }),
    },
    is: 'entity Harbour\n  code: text, key\n  name: text',
  },
  {
    name: 'a union at the root is of the records it refers to',
    schema: {
      oneOf: [{ $ref: '#/$defs/Vessel' }, { $ref: '#/$defs/Crew' }],
      $defs: {
        Vessel: object({ id: { type: 'integer' }, name: text }),
        Crew: object({ id: { type: 'integer' } }),
      },
    },
    is: 'entity Vessel\n  name: text\n\nentity Crew',
  },
  {
    name: 'two members that would be called alike are both there',
    schema: object({ id: { type: 'integer' }, name: text, _name: text }, { title: 'Buoy' }),
    is: 'entity Buoy\n  name: text\n  ownName: text',
    assumed: ['_name is called ownName.'],
  },
  {
    name: 'what several lists hold is a value of each',
    schema: {
      $defs: {
        Route: object({
          id: { type: 'integer' },
          stops: { type: 'array', items: { $ref: '#/$defs/Point' } },
        }),
        Area: object({
          id: { type: 'integer' },
          corners: { type: 'array', items: { $ref: '#/$defs/Point' } },
        }),
        Point: object({ east: { type: 'number' }, north: { type: 'number' } }),
      },
    },
    is: 'value Point\n  east: decimal\n  north: decimal\n\nentity Route\n  stops: list of Point\n\nentity Area\n  corners: list of Point',
  },
];

describe('a JSON Schema as they are', () => {
  test.each(CASES)('$name', ({ schema, is, leftOut = [], assumed = [] }) => {
    const intake = read('json-schema', schema);
    expect(said(intake)).toBe(is);
    expect(parse(intake.text).diagnostics).toEqual([]);
    expect(intake.leftOut.map(({ source }) => source)).toEqual(leftOut);
    expect(intake.assumed.map(({ assumption }) => assumption)).toEqual(assumed);
    expect(unanswered(intake.text)).toEqual([]);
  });
});

describe('records as they are', () => {
  test('an object of objects alike is records by their codes', () => {
    const intake = read(
      'records',
      { KSH: { name: 'Kestrel Head', depth: 4.5 }, WKH: { name: 'Wick Haven', depth: 3 } },
      'Harbour',
    );
    expect(said(intake)).toBe(
      'entity Harbour\n  code: text(..20), key\n  name: text(..20), required\n  depth: decimal, required',
    );
    expect(intake.assumed.map(({ assumption }) => assumption)).toEqual([
      'Each record is told from others by the name it stands under.',
    ]);
  });

  test('so are those of several kinds', () => {
    const intake = read('records', {
      harbours: { KSH: { name: 'Kestrel Head' }, WKH: { name: 'Wick Haven' } },
      routes: [{ id: 1, name: 'Over the sound' }],
    });
    expect(said(intake)).toContain('entity Harbour\n  code: text(..20), key\n  name: text(..20), required');
    expect(said(intake)).toContain('entity Route\n  name: text(..40), required');
  });

  test('an object whose parts are not alike is one record', () => {
    const intake = read('records', { engine: { power: 5 }, crew: { size: 4 } }, 'Vessel');
    expect(said(intake)).toContain('entity Vessel');
  });

  test('columns that would be called alike are both there', () => {
    const intake = read('records', [{ id: 1, name: 'A', _name: 'b' }], 'Buoy');
    expect(said(intake)).toContain('  name: text(..20), required\n  ownName: text(..20), required');
  });
});
