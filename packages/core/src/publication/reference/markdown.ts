import {
  ABOUT_ERRORS,
  memberFacts,
  type BodyFacts,
  type ReferenceContent,
  type ReferenceOperation,
} from './content.js';
import { exampleText } from './exampleText.js';
import { codeMarkdown, fencedMarkdown, lineMarkdown, plainMarkdown, textMarkdown } from './textMarkdown.js';

/** The reference for a repository: CommonMark, with tables. */
export function referenceMarkdown(content: ReferenceContent): string {
  const { contract, groups, shapes, credentials, isOperation } = content;
  const { summary, servers, version } = contract.documentation;
  const blocks = [
    `# ${plainMarkdown(`${contract.title} ${version ?? contract.version}`)}`,
    ...(summary === null ? [] : [plainMarkdown(summary)]),
    ...(contract.description === null ? [] : [textMarkdown(contract.description, isOperation)]),
    table(
      ['address', 'where'],
      [
        [codeMarkdown(contract.root === '' ? '/' : contract.root), 'below wherever this is served'],
        ...servers.map(({ url, description, name }) => [
          codeMarkdown(url),
          lineMarkdown(description ?? name, isOperation),
        ]),
      ],
    ),
    ...(credentials.length === 0
      ? []
      : ['## Authentication', credentials.map((text) => `- ${plainMarkdown(text)}`).join('\n')]),
    ...toldOnceBlocks(content),
    ...groups.flatMap(({ title, description, operations }) => [
      `## ${plainMarkdown(title)}`,
      ...(description === null ? [] : [textMarkdown(description, isOperation)]),
      ...operations.flatMap((operation) => operationBlocks(content, operation)),
    ]),
    '## Shapes',
    ...shapes.flatMap((shape) => [
      `### ${plainMarkdown(shape.name)}`,
      table(
        ['member', 'type', 'description'],
        memberFacts(contract, shape).map(({ name, type, isRequired, note }) => [
          codeMarkdown(name),
          plainMarkdown(type) + (isRequired ? ', required' : ''),
          lineMarkdown(note, isOperation),
        ]),
      ),
    ]),
  ];
  return `${blocks.join('\n\n')}\n`;
}

/** The headers and errors that many operations have alike. */
function toldOnceBlocks({ headers, errors, isOperation }: ReferenceContent): readonly string[] {
  return [
    ...(headers.length === 0
      ? []
      : [
          '## Headers of requests',
          'Many operations take these, and name them.',
          table(
            ['name', 'type', 'description'],
            headers.map(({ name, type, note }) => [
              codeMarkdown(name),
              plainMarkdown(type),
              lineMarkdown(note, isOperation),
            ]),
          ),
        ]),
    '## Errors',
    textMarkdown(ABOUT_ERRORS, isOperation),
    ...(errors.length === 0
      ? []
      : [
          'Many operations answer with these, and name them by their status.',
          table(
            ['status', 'when', 'headers'],
            errors.map(({ status, phrase, when, headers }) => [
              `${status} ${phrase}`,
              lineMarkdown(when, isOperation),
              headers.map(({ name }) => codeMarkdown(name)).join(', '),
            ]),
          ),
        ]),
  ];
}

function operationBlocks(
  { headers, errors, isOperation }: ReferenceContent,
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
): readonly string[] {
  const { method, summary, documentation } = operation;
  return [
    `### ${plainMarkdown(summary)}`,
    codeMarkdown(`${method} ${path}`),
    facts.map(plainMarkdown).join(' · '),
    ...(ends === null ? [] : [`**${lineMarkdown(ends, isOperation)}**`]),
    ...(documentation?.description == null ? [] : [textMarkdown(documentation.description, isOperation)]),
    ...(sent.length === 0
      ? []
      : [
          table(
            ['name', 'in', 'type', 'description'],
            sent.map(({ name, place, type, isRequired, note }) => [
              codeMarkdown(name),
              place,
              plainMarkdown(type) + (isRequired ? ', required' : ''),
              lineMarkdown(note, isOperation),
            ]),
          ),
        ]),
    ...(sharedHeaders.length === 0
      ? []
      : [`Headers: ${sharedHeaders.map((at) => codeMarkdown(headers[at]?.name ?? '')).join(', ')}.`]),
    ...(body === null ? [] : [`Body: ${bodyText(body)}`]),
    table(
      ['status', 'when', 'body', 'headers'],
      answers.map(({ status, phrase, when, body: answered, headers }) => [
        `${status} ${phrase}`,
        lineMarkdown(when, isOperation),
        answered === null ? '' : bodyText(answered),
        headers.map(({ name }) => codeMarkdown(name)).join(', '),
      ]),
    ),
    ...(sharedErrors.length === 0
      ? []
      : [`Errors: ${sharedErrors.map((at) => errors[at]?.status ?? '').join(', ')}.`]),
    ...examples.flatMap((example) => [
      example.name === 'derived' ? 'Example:' : `Example ${plainMarkdown(example.name)}:`,
      fencedMarkdown(exampleText(example), 'http'),
    ]),
  ];
}

const bodyText = ({ shape, types, around }: BodyFacts): string =>
  [
    ...(shape === null ? [] : [codeMarkdown(shape)]),
    plainMarkdown(`${types.join(', ')}${around === null ? '' : `; ${around}`}`),
  ].join(' ');

/** Cells are Markdown. */
const table = (heads: readonly string[], rows: readonly (readonly string[])[]): string =>
  [heads, heads.map(() => '---'), ...rows].map((cells) => `| ${cells.join(' | ')} |`).join('\n');
