import { WEB_ADDRESS_OR_NONE } from '../webAddress.js';
import { type Effective, FOR_ARRANGEMENT, FOR_RESOURCE, list, name, options, text } from './row.js';

const IN_JSON: readonly Effective[] = [{ setting: 'mediaTypes', includes: 'json' }];
const IN_MEMBER: readonly Effective[] = [
  ...IN_JSON,
  { setting: 'recordEnvelope', is: ['answers', 'bodies'] },
];

/** At most eight members, their names as short as names are (RFC 8259). */
const SCALAR = String.raw`(?:"[^"\\\u0000-\u001f]{0,80}"|true|false|null|-?(?:0|[1-9]\d{0,14}))`;
const PAIR = String.raw`\s?"[A-Za-z][A-Za-z0-9_-]{0,39}"\s?:\s?${SCALAR}\s?`;
const FLAT_OBJECT = new RegExp(`^(?:|\\{${PAIR}(?:,${PAIR}){0,7}\\})$`);

/** Where something about the API is told. */
const webPage = (title: string, help: string) =>
  text({
    default: '',
    title,
    help,
    pattern: WEB_ADDRESS_OR_NONE,
    expected: 'an absolute URL, or nothing',
    empty: 'none',
    levels: FOR_ARRANGEMENT,
  });

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
  memberLinks: options({
    default: 'all',
    options: ['all', 'self', 'none'],
    title: 'Links of listed records',
    help: 'Which of their links records in a list carry: all, self alone, or none; read alone they carry all.',
    levels: FOR_ARRANGEMENT,
  }),
  linkMethods: options({
    default: 'none',
    options: ['none', 'method'],
    labels: { none: 'as they are', method: 'with their method' },
    title: 'Links that are no GET',
    help: 'Whether a link in plain JSON that is no GET says its method, and the media types that are accepted there.',
    levels: FOR_ARRANGEMENT,
    when: [...IN_JSON, { setting: 'links', is: ['object'] }],
  }),
  apiLinks: list({
    default: ['service-desc'],
    items: ['describedby', 'profile', 'service-desc', 'service-doc'],
    min: 0,
    max: 4,
    empty: 'none',
    expected: 'some of describedby, profile, service-desc, service-doc, each once',
    title: 'Links of the API itself',
    help: 'Answers link their JSON Schema and a profile (RFC 6906); the entry its description and its documentation (RFC 8631).',
    levels: FOR_ARRANGEMENT,
  }),
  termsUrl: webPage(
    'Terms of service',
    'Where the terms of service are; the entry links them as terms-of-service.',
  ),
  licenseUrl: webPage('License', 'Where the license of the API is; the entry links it as license.'),
  statusUrl: webPage(
    'Status page',
    'Where it is told whether the API is up (RFC 8631 §4.4); the entry links it as status.',
  ),
  undocumented: options({
    default: 'fine',
    options: ['fine', 'told'],
    labels: { fine: 'is fine', told: 'is a finding' },
    title: 'An operation nobody documented',
    help: 'Whether each published operation without a summary or description of yours is a finding.',
    levels: FOR_ARRANGEMENT,
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
  recordEnvelope: options({
    default: 'none',
    options: ['none', 'answers', 'bodies'],
    labels: { none: 'bare', answers: 'in a member of answers', bodies: 'in a member of all bodies' },
    title: 'One record in JSON',
    help: 'Whether one record in plain JSON is the body, or stands in a member of it: in answers, or in what is sent, too.',
    levels: FOR_ARRANGEMENT,
    when: IN_JSON,
  }),
  recordMember: name({
    default: 'data',
    title: 'One record is called',
    help: 'The member of a body in plain JSON that holds the one record.',
    when: IN_MEMBER,
  }),
  recordLinks: options({
    default: 'inside',
    options: ['inside', 'beside'],
    title: 'Links of one record',
    help: 'Where its links stand where one record is in a member of the body: inside it, or beside that member.',
    levels: FOR_ARRANGEMENT,
    when: [...IN_MEMBER, { setting: 'links', is: ['object'] }],
  }),
  recordConstants: text({
    default: '',
    title: 'Beside one record',
    help: 'What else stands beside the one record in every answer, as a JSON object of texts, numbers, true, false or null.',
    pattern: FLAT_OBJECT,
    expected: 'a JSON object of scalars, such as { "success": true }, or nothing',
    empty: 'nothing else',
    levels: FOR_ARRANGEMENT,
    when: IN_MEMBER,
  }),
  unset: options({
    default: 'null',
    options: ['null', 'left out'],
    title: 'Unset members',
    help: 'What has no value is answered as null, or left out.',
    levels: FOR_ARRANGEMENT,
  }),
  decimalScales: options({
    default: 'described',
    options: ['described', 'multipleOf'],
    title: 'Scale of decimals',
    help: 'Schemas say it in words, or as multipleOf, which validators that reckon in binary get wrong.',
    levels: FOR_ARRANGEMENT,
  }),
};
