import { figuresOf, type Contract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { readSql } from '@isomeros/core/intake';
import { indexModel, type Model } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import { exampleExchange, type ExampleStage } from './example.js';
import type { DesignFigures } from '../app/api/types.js';
import type { Answer, Derived, Question, TextToDerive } from './workerMessages.js';

/** The last sound derivation: examples are run on it. */
let latest: { readonly design: string; readonly model: Model; readonly contract: Contract } | null = null;
let stage: ExampleStage | null = null;

self.onmessage = ({ data }: MessageEvent<Question>): void => {
  const answer = reply(data);
  self.postMessage(answer);
};

function deriveText({ design, text, identities, soundText }: TextToDerive): Derived {
  const started = performance.now();
  const { model, diagnostics, places } = parse(text, identities);
  const basis =
    diagnostics.length === 0 ? model : latest?.design === design ? null : parse(soundText, identities).model;
  if (basis !== null) {
    latest = { design, model: basis, contract: derive(basis, { name: 'main' }) };
    stage = null;
  }
  return {
    model,
    diagnostics,
    places: Object.fromEntries(places),
    contract: basis === null ? null : (latest?.contract ?? null),
    figures: basis === null || latest === null ? null : figures(basis, latest.contract),
    milliseconds: performance.now() - started,
  };
}

function figures(model: Model, contract: Contract): DesignFigures {
  const { entities, relationships } = indexModel(model);
  return { ...figuresOf(contract), entities: entities.size, relationships: relationships.length };
}

function reply(question: Question): Answer {
  switch (question.kind) {
    case 'derive':
      return { kind: 'derived', number: question.number, ...deriveText(question) };
    case 'intake':
      return { kind: 'taken-in', number: question.number, intake: readSql(question.source, question.name) };
    case 'example': {
      stage ??= latest === null ? null : { ...latest, dataset: null };
      const example = stage === null ? null : exampleExchange(stage, question.operation);
      if (example !== null && stage !== null) stage = { ...stage, dataset: example.dataset };
      return { kind: 'example', number: question.number, example: example?.exchange ?? null };
    }
  }
}
