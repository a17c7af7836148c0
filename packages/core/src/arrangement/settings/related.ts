import { FOR_RESOURCE, integer, name, options, type Effective } from './row.js';

const EXPANDING: readonly Effective[] = [{ setting: 'expand', is: ['on'] }];

export const RELATED = {
  fields: options({
    default: 'off',
    options: ['off', 'on'],
    title: 'Sparse fields',
    help: 'Whether a request can say which members it wants: ?fields=name,berth.',
    levels: FOR_RESOURCE,
  }),
  expand: options({
    default: 'off',
    options: ['off', 'on'],
    title: 'Expansion',
    help: 'Whether a request can ask for related records inside the answer: ?expand=vessel.',
    levels: FOR_RESOURCE,
  }),
  expandDepth: integer({
    default: 1,
    min: 1,
    max: 3,
    title: 'Steps inside',
    help: 'At most so many steps lead from a record to what is inside it: ?expand=route.origin takes 2.',
    levels: FOR_RESOURCE,
    when: EXPANDING,
  }),
  expandSize: integer({
    default: 0,
    min: 0,
    max: 10_000,
    title: 'Most records inside',
    help: 'At most so many records of the list stand inside an answer; 0: as many as its largest page.',
    levels: FOR_RESOURCE,
    when: EXPANDING,
  }),
  fieldsParameter: name({
    default: 'fields',
    title: 'Members parameter',
    help: 'The query parameter with the members that are wanted: ?fields=name,berth.',
    when: [{ setting: 'fields', is: ['on'] }],
  }),
  expandParameter: name({
    default: 'expand',
    title: 'Expand parameter',
    help: 'The query parameter with the related records that are wanted: ?expand=vessel.',
    when: EXPANDING,
  }),
};
