import { indexContract, type Contract, type SecurityScheme } from '../../contract/index.js';
import type { PublishedCall, PublishedCalls } from '../source.js';

/** A text as a word of a POSIX shell: nothing in it means anything (POSIX.1-2017, Shell §2.2.2). */
const quoted = (text: string): string => `'${text.replaceAll("'", "'\\''").replaceAll('\0', '')}'`;

/** A comment of one line. */
const comment = (text: string): string =>
  `# ${text.replace(/[\u0000-\u001f\u007f\u0085\u2028\u2029]+/g, ' ').trim()}`;

/**
 * A script that sends every call with curl, in their order, and tells of each whether it was answered as it should be.
 * Where the API is and who calls are taken from the environment.
 */
export function script(contract: Contract, { calls }: PublishedCalls): string {
  const variables = credentialVariables(calls);
  const asked = [...variables].map(([who, variable]) => [variable, whatIs(contract, who)] as const);
  const lines = calls.flatMap((call) => callLines(contract, call, variables));
  return [
    '#!/bin/sh',
    comment(`${contract.title} ${contract.version}`),
    '# Calls every operation once, in an order in which each succeeds on fresh seed records.',
    '#',
    `# BASE_URL  where the API is, such as http://127.0.0.1:4811${contract.root}`,
    ...asked.map(([variable, means]) => comment(`${variable}  ${means}`)),
    'set -eu',
    ': "${BASE_URL:?Expected where the API is}"',
    ...asked.map(([variable]) => `: "\${${variable}:?Expected credentials}"`),
    '',
    ...HELPERS,
    ...lines,
    '',
    'exit "$failed"',
    '',
  ].join('\n');
}

const HELPERS = [
  'body=$(mktemp)',
  'trap \'rm -f "$body"\' EXIT',
  'failed=0',
  'token=',
  '',
  '# call STATUS METHOD TARGET [curl arguments]',
  'call() {',
  '  expected=$1 method=$2 target=$3',
  '  shift 3',
  '  status=$(curl --silent --show-error --globoff --path-as-is --output "$body" --write-out "%{http_code}" \\',
  '    --request "$method" "$@" --url "$BASE_URL$target") || status=none',
  '  printf "%s %s %s\\n" "$status" "$method" "$target"',
  '  [ "$status" = "$expected" ] && return',
  '  printf "Expected %s.\\n" "$expected" >&2',
  '  cat "$body" >&2',
  '  failed=1',
  '}',
] as const;

/** What the credentials of everybody who calls are called in the environment. */
function credentialVariables(calls: readonly PublishedCall[]): ReadonlyMap<string, string> {
  const known = new Set(
    calls.flatMap(({ credentials }) => (credentials.kind === 'known' ? [credentials.who] : [])),
  );
  const taken = new Set<string>();
  return new Map(
    [...known].map((who) => {
      const wanted = `${who.toUpperCase().replace(/[^A-Z0-9]+/g, '_')}_CREDENTIAL`.replace(/^[0-9]/, '_$&');
      let free = wanted;
      for (let number = 2; taken.has(free); number++) free = `${wanted}_${number}`;
      taken.add(free);
      return [who, free];
    }),
  );
}

function whatIs({ security: { schemes } }: Contract, who: string): string {
  switch (schemes[0] ?? 'bearer') {
    case 'basic':
      return `user and password of ${who}, joined by a colon`;
    case 'key':
      return `the API key of ${who}`;
    case 'bearer':
      return `the token of ${who}`;
  }
}

function callLines(
  contract: Contract,
  call: PublishedCall,
  variables: ReadonlyMap<string, string>,
): readonly string[] {
  const { operation, method, target, headers, body, status, credentials, handsOut } = call;
  const { operations } = indexContract(contract);
  const words = [
    'call',
    String(status),
    method,
    quoted(target),
    ...[...headers].flatMap(([name, value]) => ['--header', quoted(`${name}: ${value}`)]),
    ...credentialWords(contract, credentials, variables),
    ...(body === null ? [] : ['--data-raw', quoted(body)]),
  ];
  return [
    '',
    comment(`${operation}: ${operations.get(operation)?.summary ?? ''}`),
    words.join(' '),
    ...(handsOut === null
      ? []
      : [`token=$(sed -n ${quoted(`s/.*"${handsOut}":"\\([^"]*\\)".*/\\1/p`)} "$body")`]),
  ];
}

function credentialWords(
  { security: { schemes, keyHeader } }: Contract,
  credentials: PublishedCall['credentials'],
  variables: ReadonlyMap<string, string>,
): readonly string[] {
  switch (credentials.kind) {
    case 'none':
      return [];
    case 'known':
      return presented(schemes[0] ?? 'bearer', keyHeader, variables.get(credentials.who) ?? 'token');
    case 'token':
      return presented(schemes.find((scheme) => scheme !== 'basic') ?? 'bearer', keyHeader, 'token');
  }
}

/** Credentials from a variable of the shell. */
function presented(scheme: SecurityScheme, keyHeader: string, variable: string): readonly string[] {
  switch (scheme) {
    case 'basic':
      return ['--user', `"$${variable}"`];
    case 'bearer':
      return ['--header', `'Authorization: Bearer '"$${variable}"`];
    case 'key':
      return ['--header', `${quoted(`${keyHeader}: `)}"$${variable}"`];
  }
}
