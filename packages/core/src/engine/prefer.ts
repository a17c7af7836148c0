import type { EngineRequest, EngineResponse } from './message.js';

export type ReturnPreference = 'minimal' | 'representation';

/** What a request says about the body of the answer: the first `return` of its Prefer (RFC 7240 §2, §4.2). */
export function returnPreference({ headers }: EngineRequest): ReturnPreference | null {
  for (const preference of (headers.get('prefer') ?? '').split(',')) {
    const [, value] = /^\s*return\s*=\s*"?(minimal|representation)"?\s*(?:;|$)/i.exec(preference) ?? [];
    if (value !== undefined) return value.toLowerCase() === 'minimal' ? 'minimal' : 'representation';
  }
  return null;
}

/** Says that a preference was honoured (RFC 7240 §3). */
export const withPreference = (
  response: EngineResponse,
  preference: ReturnPreference | null,
): EngineResponse =>
  preference === null
    ? response
    : { ...response, headers: [...response.headers, ['Preference-Applied', `return=${preference}`]] };
