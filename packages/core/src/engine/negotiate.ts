/**
 * Whether an Accept header admits a media type (RFC 9110 §12.5.1): the most specific range that matches
 * decides, and a weight of 0 rules out. No header admits everything.
 */
export function accepts(header: string | undefined, mediaType: string): boolean {
  if (header === undefined || header.trim() === '') return true;
  const [type = ''] = mediaType.split('/');
  let best = { specificity: -1, weight: 0 };
  for (const part of header.split(',')) {
    const [range = '', ...parameters] = part.split(';').map((text) => text.trim().toLowerCase());
    const specificity = range === mediaType ? 2 : range === `${type}/*` ? 1 : range === '*/*' ? 0 : -1;
    if (specificity <= best.specificity) continue;
    best = { specificity, weight: weightOf(parameters) };
  }
  return best.weight > 0;
}

function weightOf(parameters: readonly string[]): number {
  const weight = parameters.find((parameter) => parameter.startsWith('q='));
  if (weight === undefined) return 1;
  const value = Number(weight.slice(2));
  return Number.isFinite(value) ? value : 0;
}

/** The media type of a Content-Type header, without parameters, in lower case. */
export const mediaTypeOf = (header: string | undefined): string =>
  (header ?? '').split(';')[0]?.trim().toLowerCase() ?? '';
