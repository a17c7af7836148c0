import { quotedEnd } from '../model/index.js';

/** The text with another design name: its design line changed, or one put in front. Everything else stays. */
export function withDesignName(text: string, name: string): string {
  const lines = text.split(/(?<=\n)/);
  const index = lines.findIndex((line) => /^design\s/.test(line));
  const quoted = JSON.stringify(name);
  if (index === -1) return text.trim() === '' ? `design ${quoted}\n` : `design ${quoted}\n\n${text}`;
  const line = lines[index] ?? '';
  const start = /^design\s+/.exec(line)?.[0].length ?? 0;
  const end = line[start] === '"' ? quotedEnd(line, start) : -1;
  const renamed = `design ${quoted}${end === -1 ? (/\r?\n$/.exec(line)?.[0] ?? '') : line.slice(end)}`;
  return [...lines.slice(0, index), renamed, ...lines.slice(index + 1)].join('');
}
