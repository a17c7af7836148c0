import type { Model } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';

/** The model of a text that must be sound. */
export function modelOf(text: string): Model {
  const { model, diagnostics } = parse(text);
  if (diagnostics.length > 0)
    throw new Error(diagnostics.map(({ place, message }) => `${place.line}: ${message}`).join('\n'));
  return model;
}
