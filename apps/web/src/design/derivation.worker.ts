import { arrangementOf, completeModel, type Choices } from '@isomeros/core/arrangement';
import { differenceOf, figuresOf, type Contract, type ContractDifference } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { editModel, indexModel, type Model, type ModelEdit } from '@isomeros/core/model';
import { parse, print } from '@isomeros/core/notation';
import { exampleExchange, type ExampleStage } from './example.js';
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
    contract: basis === null ? null : (latest?.contract ?? null),
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

function consequenceOf(edit: ModelEdit): ContractDifference | null {
  if (latest === null) return null;
  const { model, diagnostics } = parse(print(editModel(latest.model, edit)));
  if (diagnostics.length > 0) return null;
  const choices = latest.choices;
  const after = derive(completeModel(model, choices), arrangementOf(ARRANGEMENT, choices));
  return differenceOf(latest.contract, after);
}

function reply(question: Question): Answer {
  switch (question.kind) {
    case 'derive':
      return { kind: 'derived', number: question.number, ...deriveText(question) };
    case 'consequence':
      return {
        kind: 'consequence',
        number: question.number,
        difference: consequenceOf(question.edit),
      };
    case 'example': {
      stage ??= latest === null ? null : { ...latest, dataset: null };
      const example = stage === null ? null : exampleExchange(stage, question.operation);
      if (example !== null && stage !== null) stage = { ...stage, dataset: example.dataset };
      return { kind: 'example', number: question.number, example: example?.exchange ?? null };
    }
  }
}
