import { arrangementOf, completeModel } from '@isomeros/core/arrangement';
import { differenceOf, type Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { editModel, type Model } from '@isomeros/core/model';
import { parse, print } from '@isomeros/core/notation';
import type { ConsequenceAnswer, ConsequenceQuestion } from './consequenceMessages.js';

self.onmessage = ({ data }: MessageEvent<ConsequenceQuestion>): void => {
  const answer: ConsequenceAnswer = { number: data.number, differences: differencesOf(data) };
  self.postMessage(answer);
};

function differencesOf({
  text,
  identities,
  choices,
  edits,
}: ConsequenceQuestion): ConsequenceAnswer['differences'] {
  const contractOf = (model: Model): Contract =>
    derive(completeModel(model, choices), arrangementOf('main', choices));
  const { model, diagnostics } = parse(text, identities);
  if (diagnostics.length > 0) return edits.map(() => null);
  const before = contractOf(model);
  return edits.map((edit) => {
    const edited = parse(print(editModel(model, edit)));
    return edited.diagnostics.length > 0 ? null : differenceOf(before, contractOf(edited.model));
  });
}
