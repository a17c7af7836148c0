import { arrangementOf, completeModel, type Choices } from '@isomeros/core/arrangement';
import { figuresOf, type Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { indexModel, type Model } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import { exampleExchange, type ExampleStage } from './example.js';
import { impliedBy } from './implied.js';
import { outlineOf } from './outline.js';
import type { DesignFigures } from '../app/api/types.js';
import type { Answer, Derived, Question, TextToDerive } from './workerMessages.js';

interface Latest {
  readonly design: string;
  readonly model: Model;
  readonly contract: Contract;
  readonly choices: Choices;
}

/** The last sound derivation: examples are run on it. */
let latest: Latest | null = null;
let stage: ExampleStage | null = null;

const ARRANGEMENT = 'main';

self.onmessage = ({ data }: MessageEvent<Question>): void => {
  const answer = reply(data);
  self.postMessage(answer);
};

function deriveText({ design, text, identities, soundText, choices }: TextToDerive): Derived {
  const started = performance.now();
  const { model, diagnostics, places } = parse(text, identities);
  const basis =
    diagnostics.length === 0 ? model : latest?.design === design ? null : parse(soundText, identities).model;
  if (basis !== null) {
    const complete = completeModel(basis, choices);
    latest = {
      design,
      model: complete,
      choices,
      contract: derive(complete, arrangementOf(ARRANGEMENT, choices)),
    };
    stage = null;
  }
  return {
    model,
    diagnostics,
    places: Object.fromEntries(places),
    outline: basis === null || latest === null ? null : outlineOf(latest.contract),
    figures: basis === null || latest === null ? null : figures(latest),
    milliseconds: performance.now() - started,
  };
}

function figures({ model, contract, choices }: Latest): DesignFigures {
  const { entities, relationships } = indexModel(model);
  return {
    ...figuresOf(contract, choices.answered),
    entities: entities.size,
    relationships: relationships.length,
  };
}

function reply(question: Question): Answer {
  switch (question.kind) {
    case 'derive':
      return { kind: 'derived', number: question.number, json: JSON.stringify(deriveText(question)) };
    case 'contract':
      return { kind: 'contract', number: question.number, json: JSON.stringify(latest?.contract ?? null) };
    case 'implied': {
      const implied = latest === null ? null : impliedBy(latest.contract, latest.model, question.statement);
      return { kind: 'implied', number: question.number, implied };
    }
    case 'example': {
      stage ??= latest === null ? null : { ...latest, dataset: null };
      const example = stage === null ? null : exampleExchange(stage, question.operation);
      if (example !== null && stage !== null) stage = { ...stage, dataset: example.dataset };
      return { kind: 'example', number: question.number, example: example?.exchange ?? null };
    }
  }
}
