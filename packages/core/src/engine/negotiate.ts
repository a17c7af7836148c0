/**
 * The offered media type that an Accept header wants most (RFC 9110 §12.5.1): for each the most specific range
 * that matches it decides its weight, and a weight of 0 rules it out. Of equal weights the first offered wins.
 * No header admits everything. `null` when all are ruled out.
 */
export function negotiate(header: string | undefined, offered: readonly string[]): string | null {
  if (header === undefined) return offered[0] ?? null;
  // A type alone admits itself and nothing else.
  if (offered.includes(header)) return header;
  let best: { readonly type: string; readonly weight: number } | null = null;
  for (const type of offered) {
    const weight = header.trim() === '' ? 1 : weightFor(header, type);
    if (weight > 0 && (best === null || weight > best.weight)) best = { type, weight };
  }
  return best?.type ?? null;
}

/** The weight that an Accept header gives to a media type. */
export function weightFor(header: string, mediaType: string): number {
  const [type = ''] = mediaType.split('/');
  let best = { specificity: -1, weight: 0 };
  for (const part of header.split(',')) {
    const [range = '', ...parameters] = part.split(';').map((text) => text.trim().toLowerCase());
    const specificity = range === mediaType ? 2 : range === `${type}/*` ? 1 : range === '*/*' ? 0 : -1;
    if (specificity <= best.specificity) continue;
    best = { specificity, weight: weightOf(parameters) };
  }
  return best.weight;
}

function weightOf(parameters: readonly string[]): number {
  const weight = parameters.find((parameter) => parameter.startsWith('q='));
  if (weight === undefined) return 1;
  const value = Number(weight.slice(2));
  return Number.isFinite(value) ? value : 0;
}

/** The media type of a Content-Type header, without parameters, in lower case. */
export function mediaTypeOf(header: string | undefined): string {
  if (header === undefined || BARE_TYPE.test(header)) return header ?? '';
  return header.split(';')[0]?.trim().toLowerCase() ?? '';
}

/** Most headers name a type and nothing else. */
const BARE_TYPE = /^[a-z+./-]+$/;
