/** A JSON text laid out over lines: short objects stay on one; a text that is not JSON stays as it is. */
export function indentJson(text: string, width = 62): string {
  try {
    return layOut(JSON.parse(text) as unknown, '', width);
  } catch (error) {
    if (error instanceof SyntaxError) return text;
    throw error;
  }
}

function layOut(value: unknown, indent: string, width: number): string {
  const short = inline(value);
  if (typeof value !== 'object' || value === null || indent.length + short.length <= width) return short;
  const inner = `${indent}  `;
  if (Array.isArray(value))
    return `[\n${value.map((item) => inner + layOut(item, inner, width)).join(',\n')}\n${indent}]`;
  const members = Object.entries(value).map(([name, member]) => {
    const label = `${inner}${JSON.stringify(name)}: `;
    return label + layOut(member, inner, width - (label.length - inner.length));
  });
  return `{\n${members.join(',\n')}\n${indent}}`;
}

function inline(value: unknown): string {
  if (Array.isArray(value)) return value.length === 0 ? '[]' : `[${value.map(inline).join(', ')}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value);
  const members = Object.entries(value).map(([name, member]) => `${JSON.stringify(name)}: ${inline(member)}`);
  return members.length === 0 ? '{}' : `{ ${members.join(', ')} }`;
}
