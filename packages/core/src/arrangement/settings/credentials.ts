import { FOR_ARRANGEMENT, FOR_OPERATION, list, options, text, type Effective } from './row.js';

const GUARDED: Effective = { setting: 'security', isEmpty: false };

export const CREDENTIALS = {
  security: list({
    default: [],
    items: ['basic', 'bearer', 'api key'],
    min: 0,
    max: 3,
    expected: 'any of basic, bearer and api key, each once, the preferred one first',
    empty: 'none',
    title: 'Credentials',
    help: 'How clients prove who they are: Basic (RFC 7617), Bearer (RFC 6750), a key in a header; several are alternatives.',
    levels: FOR_ARRANGEMENT,
  }),
  keyHeader: text({
    default: 'X-API-Key',
    title: 'API key in header',
    help: 'The request header that holds an API key.',
    pattern: /^(?!(?:Authorization|Host|Cookie|Content-.*|If-.*|Accept.*)$)[A-Za-z][A-Za-z0-9-]{0,59}$/i,
    expected: 'the name of a header of your own, such as X-API-Key',
    levels: FOR_ARRANGEMENT,
    when: [{ setting: 'security', includes: 'api key' }],
  }),
  access: options({
    default: 'authenticated',
    options: ['anonymous', 'authenticated', 'role'],
    title: 'Who may',
    help: 'Anybody, whoever proves who they are (else 401), or whoever has the role (else 403).',
    levels: FOR_OPERATION,
    when: [GUARDED],
  }),
  role: text({
    default: 'admin',
    title: 'Role',
    help: 'The role that is asked for; a mock knows somebody in each.',
    pattern: /^[A-Za-z][A-Za-z0-9_-]{0,39}$/,
    expected: 'a word of letters, digits, hyphens and underscores',
    levels: FOR_OPERATION,
    when: [GUARDED, { setting: 'access', is: ['role'] }],
  }),
};
