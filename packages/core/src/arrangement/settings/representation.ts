import { type Effective, FOR_ARRANGEMENT, FOR_RESOURCE, list, name, options, text } from './row.js';

const IN_JSON: readonly Effective[] = [{ setting: 'mediaTypes', includes: 'json' }];
const IN_ENVELOPE: Effective = { setting: 'envelope', is: ['object'] };

export const REPRESENTATION = {
  itemsMember: name({
    default: 'items',
    title: 'Items are called',
    help: 'The member of a list in plain JSON that holds its records.',
    when: [IN_ENVELOPE],
  }),
  pageMember: name({
    default: 'page',
    title: 'The page is called',
    help: 'The member of a list in plain JSON that tells about the page.',
    when: [{ setting: 'pageStyle', is: ['number', 'offset', 'cursor'] }, IN_ENVELOPE],
  }),
  linksMember: name({
    default: 'links',
    title: 'Links are called',
    help: 'The member of plain JSON that holds links, from each relation to where it leads.',
    when: [{ setting: 'links', is: ['object'] }],
  }),
  mediaTypes: list({
    default: ['json', 'hal'],
    items: ['json', 'hal'],
    min: 1,
    max: 2,
    expected: 'json, hal, or both, the preferred one first',
    title: 'Media types',
    help: 'What answers are offered in, the preferred one first: application/json, application/hal+json.',
    levels: FOR_ARRANGEMENT,
  }),
  links: options({
    default: 'object',
    options: ['object', 'header', 'none'],
    title: 'Links in JSON',
    help: 'Where plain JSON has its links: in an object, in the headers Link and Link-Template (RFC 8288, 9652), or nowhere.',
    levels: FOR_ARRANGEMENT,
    when: IN_JSON,
  }),
  linkForm: options({
    default: 'path',
    options: ['path', 'absolute'],
    title: 'Links are',
    help: 'Paths (/api/v1/routes/1), or whole URIs with the host that was asked; Location follows.',
    levels: FOR_ARRANGEMENT,
  }),
  relationBase: text({
    default: '',
    title: 'Link relations begin with',
    help: 'What URIs of link relations of your own begin with (RFC 8288 §2.1.2), so that they outlive a port.',
    pattern: /^(?:https?:\/\/[A-Za-z0-9.-]{1,100}(?::\d{1,5})?(?:\/[A-Za-z0-9._~-]{1,60}){0,8}\/)?$/,
    expected: 'an absolute URL with a slash at its end, such as https://api.example/relations/, or nothing',
    empty: 'the mock itself',
    levels: FOR_ARRANGEMENT,
  }),
  envelope: options({
    default: 'object',
    options: ['object', 'bare'],
    title: 'Lists in JSON',
    help: 'Whether a list in plain JSON is an object around its records, or the bare array of them.',
    levels: FOR_RESOURCE,
    when: IN_JSON,
  }),
  unset: options({
    default: 'null',
    options: ['null', 'left out'],
    title: 'Unset members',
    help: 'What has no value is answered as null, or left out.',
    levels: FOR_ARRANGEMENT,
  }),
};
