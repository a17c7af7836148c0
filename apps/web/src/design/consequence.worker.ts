import { arrangementOf, completeModel, type Choices } from '@isomeros/core/arrangement';
import { compare } from '@isomeros/core/comparison';
import type { Contract } from '@isomeros/core/contract';
import { derive, deriveOutline } from '@isomeros/core/derivation';
import type { Model } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import { afterStep } from './afterStep.js';
import { BaselineReleases } from './baselineReleases.js';
import type {
  Consequence,
  ConsequenceAnswer,
  ConsequenceQuestion,
  LoadReleases,
} from './consequenceMessages.js';

const releases = new BaselineReleases();

self.onmessage = ({ data }: MessageEvent<ConsequenceQuestion | LoadReleases>): void => {
  if ('held' in data) {
    releases.load(data.held);
    return;
  }
  const answer: ConsequenceAnswer = { number: data.number, consequences: consequencesOf(data) };
  self.postMessage(answer);
};

function consequencesOf({
  design,
  text,
  identities,
  choices,
  arrangement,
  steps,
}: ConsequenceQuestion): ConsequenceAnswer['consequences'] {
  const { model, diagnostics } = parse(text, identities);
  if (diagnostics.length > 0) return steps.map(() => null);
  const contractOf = (of: Model, decided: Choices): Contract => {
    const contract = derive(completeModel(of, decided), arrangementOf(arrangement, decided));
    return {
      ...contract,
      findings: [...releases.broken(design, arrangement, contract), ...contract.findings],
    };
  };
  const before = contractOf(model, choices);
  return steps.map((step): Consequence | null => {
    const next = afterStep(model, choices, step);
    if (next === null) return null;
    return {
      summary: compare(
        { kind: 'arrangement', name: arrangement, contract: before },
        { kind: 'draft', contract: contractOf(next.model, next.choices) },
      ).summary,
      outline: deriveOutline(
        completeModel(next.model, next.choices),
        arrangementOf(arrangement, next.choices),
      ),
    };
  });
}
