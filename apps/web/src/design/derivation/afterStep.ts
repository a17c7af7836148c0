import type { Choices } from '@isomeros/core/arrangement';
import { editModel, identitiesOf, type Model } from '@isomeros/core/model';
import { parse, print } from '@isomeros/core/notation';
import type { Step } from './protocol.js';

/** The model and the choices after a step; `null` where its text would have errors. What has an identity keeps it. */
export function afterStep(
  model: Model,
  choices: Choices,
  step: Step,
): { readonly model: Model; readonly choices: Choices } | null {
  if (step.kind === 'choices') return { model, choices: step.choices };
  const next = editModel(model, step.edit);
  const edited = parse(print(next), Object.fromEntries(identitiesOf(next)));
  return edited.diagnostics.length > 0 ? null : { model: edited.model, choices };
}
