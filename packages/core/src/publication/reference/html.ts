import { sha256 } from '@noble/hashes/sha2.js';
import { base64, utf8 } from '@scure/base';
import type { Contract } from '../../contract/index.js';
import {
  ABOUT_ERRORS,
  isShape,
  memberFacts,
  type AnswerFacts,
  type BodyFacts,
  type ReferenceContent,
  type ReferenceGroup,
  type ReferenceOperation,
  type SentPart,
} from './content.js';
import { exampleText } from './exampleText.js';
import { escaped, escapedText } from './markup.js';
import { SCRIPT, STYLE } from './style.js';
import { lineHtml, operationAnchor, textHtml } from './textHtml.js';

type IsOperation = ReferenceContent['isOperation'];

/** Only the one script that is known may run, and nothing is loaded from anywhere (Content Security Policy). */
export const REFERENCE_POLICY = [
  "default-src 'none'",
  "style-src 'unsafe-inline'",
  `script-src 'sha256-${base64.encode(sha256(utf8.decode(SCRIPT)))}'`,
  "base-uri 'none'",
  "form-action 'none'",
].join('; ');

const shapeAnchor = (name: string): string => `shape-${name}`;

/** A page that is one file: readable without a network, to be searched and printed. */
export function referenceHtml(content: ReferenceContent): string {
  const { contract, groups, shapes } = content;
  const title = `${contract.title} ${contract.documentation.version ?? contract.version}`;
  return [
    '<!doctype html>',
    '<html lang="en">',
    '<head>',
    '<meta charset="utf-8">',
    `<meta http-equiv="Content-Security-Policy" content="${escaped(REFERENCE_POLICY)}">`,
    '<meta name="viewport" content="width=device-width, initial-scale=1">',
    `<title>${escaped(title)}</title>`,
    `<style>${STYLE}</style>`,
    '</head>',
    '<body>',
    contents(content),
    '<main>',
    opening(content, title),
    ...groups.map((group, index) => groupHtml(content, group, index)),
    `<section data-group="article:not([hidden])" aria-labelledby="shapes"><h2 id="shapes">Shapes</h2>`,
    ...shapes.map((shape) => {
      const { isOperation } = content;
      const rows = memberFacts(contract, shape).map(({ name, type, shape: of, isRequired, note }) => [
        code(name),
        (of === null ? escaped(type) : shapeLink(contract, of, type)) + (isRequired ? ', required' : ''),
        lineHtml(note, isOperation),
      ]);
      return `<article id="${escaped(shapeAnchor(shape.name))}"><h3>${code(shape.name)}</h3>${table(['member', 'type', 'description'], rows)}</article>`;
    }),
    '</section>',
    '</main>',
    `<script>${SCRIPT}</script>`,
    '</body>',
    '</html>',
    '',
  ].join('\n');
}

/** The list of contents, and the field that narrows it. */
function contents({ groups, shapes }: ReferenceContent): string {
  const operations = groups.map(({ title, operations: all }) => {
    const items = all.map(({ operation, path }) => {
      const find = [operation.method, path, operation.id, operation.summary].join(' ').toLowerCase();
      return `<li data-find="${escaped(find)}" data-of="${escaped(operationAnchor(operation.id))}"><a href="#${escaped(operationAnchor(operation.id))}"><span class="mono method">${operation.method}</span><span>${escaped(operation.summary)}</span></a></li>`;
    });
    return `<div data-group="li:not([hidden])"><p class="group">${escaped(title)}</p><ul>${items.join('')}</ul></div>`;
  });
  const shapeItems = shapes.map(
    ({ name }) =>
      `<li data-find="${escaped(name.toLowerCase())}" data-of="${escaped(shapeAnchor(name))}"><a class="plain" href="#${escaped(shapeAnchor(name))}"><code>${escaped(name)}</code></a></li>`,
  );
  return [
    '<nav aria-label="Contents">',
    '<div hidden><label for="find">Find</label><input id="find" type="search" autocomplete="off" placeholder="a path, a name, a word"><output id="found" aria-live="polite"></output></div>',
    ...operations,
    `<div data-group="li:not([hidden])"><p class="group">Shapes</p><ul>${shapeItems.join('')}</ul></div>`,
    '</nav>',
  ].join('\n');
}

const headerAnchor = (at: number): string => `header-${at + 1}`;
const errorAnchor = (at: number): string => `error-${at + 1}`;

/** Links to what is told once for all, after the words before them. */
function sharedHtml(before: string, links: readonly string[]): readonly string[] {
  return links.length === 0 ? [] : [`<p class="quiet">${before} ${links.join(', ')}.</p>`];
}

function opening(content: ReferenceContent, title: string): string {
  const { contract, credentials, isOperation } = content;
  const { summary, contact, license, terms, external, servers } = contract.documentation;
  const link = (url: string, text: string): string =>
    /^(?:https?:\/\/|mailto:)/i.test(url)
      ? `<a href="${escaped(url)}" rel="noreferrer">${escaped(text)}</a>`
      : escaped(text);
  const more = [
    ...(external === null ? [] : [link(external.url, external.text ?? external.url)]),
    ...(contact?.email == null ? [] : [link(`mailto:${contact.email}`, contact.name ?? contact.email)]),
    ...(license === null ? [] : [link(license.url ?? '', `Licence: ${license.name}`)]),
    ...(terms === null ? [] : [link(terms, 'Terms')]),
  ];
  const served = [
    [code(contract.root === '' ? '/' : contract.root), 'below wherever this is served'],
    ...servers.map(({ url, description, name }) => [code(url), escaped(description ?? name)]),
  ];
  return [
    `<h1>${escaped(title)}</h1>`,
    ...(summary === null ? [] : [`<p class="quiet">${escaped(summary)}</p>`]),
    ...(contract.description === null ? [] : [textHtml(contract.description, isOperation)]),
    ...(more.length === 0 ? [] : [`<p>${more.join(' · ')}</p>`]),
    table(['address', 'where'], served),
    ...(credentials.length === 0
      ? []
      : [
          '<h2>Authentication</h2>',
          `<ul>${credentials.map((text) => `<li>${escaped(text)}</li>`).join('')}</ul>`,
        ]),
    ...toldOnceHtml(content),
  ].join('\n');
}

/** The headers and errors that many operations have alike. */
function toldOnceHtml({ headers, errors, isOperation }: ReferenceContent): readonly string[] {
  return [
    ...(headers.length === 0
      ? []
      : [
          '<h2>Headers of requests</h2>',
          '<p>Many operations take these, and name them.</p>',
          table(
            ['name', 'type', 'description'],
            headers.map(({ name, type, note }, at) => [
              `<code id="${headerAnchor(at)}">${escaped(name)}</code>`,
              escaped(type),
              lineHtml(note, isOperation),
            ]),
          ),
        ]),
    '<h2>Errors</h2>',
    textHtml(ABOUT_ERRORS, isOperation),
    ...(errors.length === 0
      ? []
      : [
          '<p>Many operations answer with these, and name them by their status.</p>',
          table(
            ['status', 'when', 'headers'],
            errors.map(({ status, phrase, when, headers }, at) => [
              `<span id="${errorAnchor(at)}">${status} ${escaped(phrase)}</span>`,
              lineHtml(when, isOperation),
              namesOf(headers),
            ]),
            'answers',
          ),
        ]),
  ];
}

function groupHtml(
  content: ReferenceContent,
  { title, description, operations }: ReferenceGroup,
  index: number,
): string {
  const id = `group-${index}`;
  return [
    `<section data-group="article:not([hidden])" aria-labelledby="${id}"><h2 id="${id}">${escaped(title)}</h2>`,
    ...(description === null ? [] : [textHtml(description, content.isOperation)]),
    ...operations.map((operation) => operationHtml(content, operation)),
    '</section>',
  ].join('\n');
}

function operationHtml(
  { contract, headers, errors, isOperation }: ReferenceContent,
  {
    operation,
    path,
    facts,
    ends,
    sent,
    sharedHeaders,
    body,
    answers,
    sharedErrors,
    examples,
  }: ReferenceOperation,
): string {
  const { method, summary, documentation } = operation;
  const [id = '', ...others] = facts;
  return [
    `<article id="${escaped(operationAnchor(operation.id))}">`,
    `<h3>${escaped(summary)}</h3>`,
    `<p class="call mono"><b>${method}</b>${escaped(path)}</p>`,
    `<p class="facts"><code>${escaped(id)}</code> · ${others.map(escaped).join(' · ')}</p>`,
    ...(ends === null ? [] : [`<p class="ends">${lineHtml(ends, isOperation)}</p>`]),
    ...(documentation?.description == null ? [] : [textHtml(documentation.description, isOperation)]),
    ...(sent.length + sharedHeaders.length + (body === null ? 0 : 1) === 0 ? [] : ['<h4>What goes in</h4>']),
    ...(sent.length === 0 ? [] : [sentTable(sent, isOperation)]),
    ...sharedHtml(
      'Headers:',
      sharedHeaders.map((at) => `<a href="#${headerAnchor(at)}">${escaped(headers[at]?.name ?? '')}</a>`),
    ),
    ...(body === null ? [] : [`<p>Body: ${bodyHtml(contract, body)}</p>`]),
    '<h4>What comes out</h4>',
    answersTable(contract, answers, isOperation),
    ...sharedHtml(
      'Errors:',
      sharedErrors.map((at) => `<a href="#${errorAnchor(at)}">${errors[at]?.status ?? ''}</a>`),
    ),
    ...examples.map(
      (example) =>
        `<h4>Example${example.name === 'derived' ? '' : `: ${escaped(example.name)}`}</h4><pre>${escapedText(exampleText(example))}</pre>`,
    ),
    '</article>',
  ].join('\n');
}

const code = (text: string): string => `<code>${escaped(text)}</code>`;

const namesOf = (headers: AnswerFacts['headers']): string => code(headers.map(({ name }) => name).join(', '));

const shapeLink = (contract: Contract, shape: string, text: string): string =>
  isShape(contract, shape) ? `<a href="#${escaped(shapeAnchor(shape))}">${code(text)}</a>` : code(text);

function bodyHtml(contract: Contract, { shape, types, around }: BodyFacts): string {
  const said = shape === null ? '' : `${shapeLink(contract, shape, shape)} `;
  return `${said}<span class="quiet">${escaped(types.join(', '))}${around === null ? '' : `; ${escaped(around)}`}</span>`;
}

const sentTable = (sent: readonly SentPart[], isOperation: IsOperation): string =>
  table(
    ['name', 'in', 'type', 'description'],
    sent.map(({ name, place, type, isRequired, note }) => [
      code(name),
      place,
      escaped(type) + (isRequired ? ', required' : ''),
      lineHtml(note, isOperation),
    ]),
  );

const answersTable = (
  contract: Contract,
  answers: readonly AnswerFacts[],
  isOperation: IsOperation,
): string =>
  table(
    ['status', 'when', 'body and headers'],
    answers.map(({ status, phrase, when, body, headers }) => [
      `${status} ${escaped(phrase)}`,
      lineHtml(when, isOperation),
      [
        ...(body === null ? [] : [bodyHtml(contract, body)]),
        ...(headers.length === 0 ? [] : [`<span class="quiet">${namesOf(headers)}</span>`]),
      ].join('<br>'),
    ]),
    'answers',
  );

/** Cells are HTML. */
function table(heads: readonly string[], rows: readonly (readonly string[])[], kind = ''): string {
  const head = heads.map((name) => `<th>${name}</th>`).join('');
  const body = rows.map((cells) => `<tr>${cells.map((cell) => `<td>${cell}</td>`).join('')}</tr>`);
  return `<table${kind === '' ? '' : ` class="${kind}"`}><thead><tr>${head}</tr></thead><tbody>${body.join('')}</tbody></table>`;
}
