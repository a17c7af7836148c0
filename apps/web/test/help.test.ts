import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { HELP_NAMES, helpOf, helpText } from '../src/app/help/help.js';
import { designCommands } from '../src/app/frame/designCommands.js';
import { findCommands } from '../src/app/frame/commands.js';
import { STAGES } from '../src/stages/index.js';

const sources = join(import.meta.dirname, '../src');
const pages = readdirSync(sources, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.tsx'))
  .map((file) => readFileSync(join(sources, file), 'utf8'))
  .join('\n');

describe.each(HELP_NAMES)('the help of %s', (name) => {
  const { title, help, view } = helpOf(name);

  test('is one sentence, said somewhere on the page', () => {
    expect(help).toMatch(/^[A-Z][^.]*\.$/);
    const [group, part] = name.split('.');
    const isSaid = pages.includes(`"${name}"`) || pages.includes(`\`${group}.$`);
    expect([part, isSaid]).toEqual([part, true]);
  });

  test('is found by its words on the command line, and leads to where it is', () => {
    const places: string[] = [];
    const commands = designCommands({ outline: null, reading: null }, 'd1', [], (to) => places.push(to));
    const [found] = findCommands(commands, title, 5).filter((command) => command.help === helpText(name));
    expect(found?.help).toContain(help);
    found?.run();
    expect(places).toEqual([view === '' ? '/' : `/designs/d1/${view}`]);
    expect(['', 'revisions', ...STAGES.map(({ path }) => path)]).toContain(view);
  });
});
