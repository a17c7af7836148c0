import { memberFacts, type BodyFacts, type ReferenceContent, type ReferenceOperation } from './content.js';
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
    ...groups.flatMap(({ title, description, operations }) => [
      `## ${plainMarkdown(title)}`,
      ...(description === null ? [] : [textMarkdown(description, isOperation)]),
      ...operations.flatMap((operation) => operationBlocks(operation, isOperation)),
    ]),
    '## Shapes',
    ...shapes.flatMap((shape) => [
      `### ${plainMarkdown(shape.name)}`,
      table(
        ['member', 'type', 'required', 'description'],
        memberFacts(contract, shape).map(({ name, type, isRequired, note }) => [
          codeMarkdown(name),
          plainMarkdown(type),
          isRequired ? 'yes' : '',
          lineMarkdown(note, isOperation),
        ]),
      ),
    ]),
  ];
  return `${blocks.join('\n\n')}\n`;
}

function operationBlocks(
  { operation, path, facts, ends, sent, body, answers, examples }: ReferenceOperation,
  isOperation: ReferenceContent['isOperation'],
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
            ['name', 'in', 'type', 'required', 'description'],
            sent.map(({ name, place, type, isRequired, note }) => [
              codeMarkdown(name),
              place,
              plainMarkdown(type),
              isRequired ? 'yes' : '',
              lineMarkdown(note, isOperation),
            ]),
          ),
        ]),
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
