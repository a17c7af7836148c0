import type { Rule } from './rule.js';

export const NAME_RULES = {
  'name.path': { title: 'Path words', sentence: 'Names become path segments in the case of the setting.' },
  'name.word': {
    title: 'Chosen word',
    sentence: 'A path word that was chosen takes the place of the derived one.',
  },
  'name.version': {
    title: 'Version',
    sentence: 'The version stands in the path, in a request header, or nowhere.',
  },
  'name.plural': { title: 'Plural', sentence: 'A collection is named by the plural of its entity.' },
  'name.singular': {
    title: 'Singular',
    sentence: 'Where collections are named in the singular, lists that are named by a role are, too.',
  },
  'name.parameter': {
    title: 'Path parameter',
    sentence: 'A path parameter is named by its entity and its key.',
  },
  'name.base': { title: 'Base path', sentence: 'All paths begin with the base path and the version.' },
} as const satisfies Record<string, Rule>;
