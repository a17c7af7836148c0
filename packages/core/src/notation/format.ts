import type { Diagnostic } from './diagnostics.js';
import { parse } from './parse.js';
import { print } from './print.js';

export type FormatResult =
  | { readonly ok: true; readonly text: string }
  | { readonly ok: false; readonly diagnostics: readonly Diagnostic[] };

/** The canonical layout of a text. A text with errors is left alone: what could not be read would be lost. */
export function format(text: string): FormatResult {
  const { model, diagnostics } = parse(text);
  return diagnostics.length === 0 ? { ok: true, text: print(model) } : { ok: false, diagnostics };
}
