import { FOR_ARRANGEMENT, FOR_DESIGN, options } from './row.js';

export const NAMES = {
  memberCase: options({
    default: 'camel',
    options: ['camel', 'snake', 'kebab', 'pascal'],
    title: 'Members',
    help: 'How members of bodies and query parameters are written: departsAt, departs_at, departs-at, DepartsAt.',
    levels: FOR_ARRANGEMENT,
  }),
  operationNames: options({
    default: 'verbNoun',
    options: ['verbNoun', 'VerbNoun', 'verb_noun', 'verb-noun', 'nounVerb', 'noun.verb'],
    title: 'Operations',
    help: 'How operations are called, in the published document and here: listRoutes, list_routes, routes.list.',
    levels: FOR_ARRANGEMENT,
  }),
  // It completes the model, which all arrangements of a design share.
  implicitId: options({
    default: 'integer',
    options: ['integer', 'uuid'],
    title: 'Implicit id',
    help: 'The id of an entity that declares no key: a counted integer, or a random uuid (RFC 9562).',
    levels: FOR_DESIGN,
  }),
};
