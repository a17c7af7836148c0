import { sha256 } from '@noble/hashes/sha2.js';
import { base64, utf8 } from '@scure/base';
import type { Contract } from '../../contract/index.js';
import {
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
import { escaped } from './markup.js';
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
  const { contract, groups, shapes, isOperation } = content;
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
    ...groups.map((group, index) => groupHtml(contract, group, index, isOperation)),
    `<section data-group="article:not([hidden])" aria-labelledby="shapes"><h2 id="shapes">Shapes</h2>`,
    ...shapes.map((shape) => {
      const rows = memberFacts(contract, shape).map(({ name, type, shape: of, isRequired, note }) => [
        code(name),
        of === null ? escaped(type) : shapeLink(contract, of, type),
        isRequired ? 'yes' : '',
        lineHtml(note, isOperation),
      ]);
      return `<article id="${escaped(shapeAnchor(shape.name))}"><h3>${code(shape.name)}</h3>${table(['member', 'type', 'required', 'description'], rows)}</article>`;
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

function opening({ contract, credentials, isOperation }: ReferenceContent, title: string): string {
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
    '<h2>Errors</h2>',
    '<p>Every error is problem details (RFC 9457) as <code>application/problem+json</code>: <code>type</code>, <code>title</code>, <code>status</code>, <code>detail</code>, and in <code>errors</code> each thing that is wrong, with a pointer into the body or the name of the parameter.</p>',
  ].join('\n');
}

function groupHtml(
  contract: Contract,
  { title, description, operations }: ReferenceGroup,
  index: number,
  isOperation: IsOperation,
): string {
  const id = `group-${index}`;
  return [
    `<section data-group="article:not([hidden])" aria-labelledby="${id}"><h2 id="${id}">${escaped(title)}</h2>`,
    ...(description === null ? [] : [textHtml(description, isOperation)]),
    ...operations.map((operation) => operationHtml(contract, operation, isOperation)),
    '</section>',
  ].join('\n');
}

function operationHtml(
  contract: Contract,
  { operation, path, facts, ends, sent, body, answers, examples }: ReferenceOperation,
  isOperation: IsOperation,
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
    ...(sent.length + (body === null ? 0 : 1) === 0 ? [] : ['<h4>What goes in</h4>']),
    ...(sent.length === 0 ? [] : [sentTable(sent, isOperation)]),
    ...(body === null ? [] : [`<p>Body: ${bodyHtml(contract, body)}</p>`]),
    '<h4>What comes out</h4>',
    answersTable(contract, answers, isOperation),
    ...examples.map(
      (example) =>
        `<h4>Example${example.name === 'derived' ? '' : `: ${escaped(example.name)}`}</h4><pre>${escaped(exampleText(example))}</pre>`,
    ),
    '</article>',
  ].join('\n');
}

const code = (text: string): string => `<code>${escaped(text)}</code>`;

const shapeLink = (contract: Contract, shape: string, text: string): string =>
  isShape(contract, shape) ? `<a href="#${escaped(shapeAnchor(shape))}">${code(text)}</a>` : code(text);

function bodyHtml(contract: Contract, { shape, types, around }: BodyFacts): string {
  const said = shape === null ? '' : `${shapeLink(contract, shape, shape)} `;
  return `${said}<span class="quiet">${escaped(types.join(', '))}${around === null ? '' : `; ${escaped(around)}`}</span>`;
}

const sentTable = (sent: readonly SentPart[], isOperation: IsOperation): string =>
  table(
    ['name', 'in', 'type', 'required', 'description'],
    sent.map(({ name, place, type, isRequired, note }) => [
      code(name),
      place,
      escaped(type),
      isRequired ? 'yes' : '',
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
        ...(headers.length === 0
          ? []
          : [`<span class="quiet">${headers.map(({ name }) => code(name)).join(', ')}</span>`]),
      ].join('<br>'),
    ]),
    'answers',
  );

/** Cells are HTML. */
function table(heads: readonly string[], rows: readonly (readonly string[])[], kind = ''): string {
  const head = heads.map((name) => `<th scope="col">${name}</th>`).join('');
  const body = rows.map((cells) => `<tr>${cells.map((cell) => `<td>${cell}</td>`).join('')}</tr>`);
  return `<table${kind === '' ? '' : ` class="${kind}"`}><thead><tr>${head}</tr></thead><tbody>${body.join('')}</tbody></table>`;
}
