import { rowOf, SETTING_GROUPS, settingText, type ChoosableRow } from '@isomeros/core/arrangement';

const cell = (text: string): string => text.replaceAll('|', '\\|');

function domainOf(row: ChoosableRow): string {
  switch (row.kind) {
    case 'options':
      return row.options.map((option) => `\`${option}\``).join(', ');
    case 'integer':
      return `${row.min} to ${row.max}`;
    case 'text':
      return row.expected;
    case 'list':
      return row.items instanceof RegExp ? row.expected : row.items.map((item) => `\`${item}\``).join(', ');
  }
}

/** Every setting that can be chosen, by its group, as Markdown: from its row, like everything else about it. */
export function settingsDocument(): string {
  const lines = [
    '# Settings',
    '',
    'Every convention that can be chosen, under *Arrange*, by `PUT /api/designs/{id}/arrangements/{name}`, or in a design file. A value that nobody chose is inherited: an operation inherits from its resource, that from the arrangement, that from the design, that from the default.',
    '',
    'This page is written from the settings themselves; `UPDATE_GOLDEN=1` writes it anew.',
    '',
  ];
  for (const { title, names } of SETTING_GROUPS) {
    lines.push(
      `## ${title}`,
      '',
      '| setting | what it does | may be | default | chosen for |',
      '| --- | --- | --- | --- | --- |',
    );
    for (const name of names) {
      const row = rowOf(name);
      const usual = settingText(row.default);
      lines.push(
        `| ${row.title}<br>\`${name}\` | ${cell(row.help)} | ${cell(domainOf(row))} | ${usual === '' ? '' : `\`${usual}\``} | ${row.levels.join(', ')} |`,
      );
    }
    lines.push('');
  }
  return lines.join('\n');
}
