import { settingText } from '@isomeros/core/arrangement';
import { RULES, type RuleId } from '@isomeros/core/contract';
import type { Chapter, Layout } from '../derivation/layouts/layout.js';

const fence = (text: string): string[] => ['```', text, '```', ''];

const list = (title: string, lines: readonly string[] | undefined): string[] =>
  lines === undefined || lines.length === 0
    ? []
    : [`${title}:`, '', ...lines.map((line) => `- \`${line}\``), ''];

function chosen({ placements = {}, settings = {}, words = {} }: Layout): string[] {
  const lines = [
    ...Object.entries(placements).map(([subject, place]) => `${subject} is placed ${place}`),
    ...Object.entries(words).map(([subject, word]) => `${subject} is called ${word}`),
    ...Object.entries(settings).map(([name, value]) => `${name} is ${settingText(value)}`),
  ];
  return list('Chosen', lines);
}

const layoutLines = (layout: Layout): string[] => [
  `### ${layout.name}`,
  '',
  ...fence(layout.model),
  ...chosen(layout),
  ...(layout.paths.length === 0 ? ['No path but the entry.', ''] : list('Paths', layout.paths)),
  ...list('Links', layout.links),
  ...list('Members (`!` required, `~` moved by a change)', layout.members),
  ...list('By the rules', layout.reasons),
  ...list('Findings', layout.findings),
];

const cell = (text: string): string => text.replaceAll('|', '\\|');

/** The rules of derivation with the table of layouts that shows each at work, as Markdown. */
export function rulesDocument(chapters: readonly Chapter[]): string {
  const rules = (Object.keys(RULES) as RuleId[]).map(
    (id) => `| \`${id}\` | ${cell(RULES[id].title)} | ${cell(RULES[id].sentence)} |`,
  );
  const lines = [
    '# The rules of derivation',
    '',
    'Made by the tests from the rules and from the table of layouts they are tested with. Every element of a',
    'contract names the rules that made it; the pages show them under "Why".',
    '',
    '| rule | title | in a sentence |',
    '| --- | --- | --- |',
    ...rules,
    '',
    ...chapters.flatMap(({ title, layouts }) => [`## ${title}`, '', ...layouts.flatMap(layoutLines)]),
  ];
  return `${lines.join('\n').trimEnd()}\n`;
}
