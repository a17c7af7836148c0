import { arrangementOf, completeModel, type Choices } from '@isomeros/core/arrangement';
import { figuresOf, type Contract } from '@isomeros/core/contract';
import { derive, deriveOutline, exposureGrid } from '@isomeros/core/derivation';
import { indexModel, type Model } from '@isomeros/core/model';
import { parse, type ParseResult } from '@isomeros/core/notation';
import { BaselineReleases } from './baselineReleases.js';
import { exampleExchange, type ExampleStage } from './example.js';
import { impactOf } from './impact.js';
import type { WorkerAnswer, DerivedText, WorkerQuestion, Reviewed, TextToDerive } from './workerMessages.js';

interface Sound {
  readonly design: string;
  readonly model: Model;
  readonly choices: Choices;
  readonly arrangement: string;
}

/** The last sound text, and its whole contract once something asked for it. */
let sound: Sound | null = null;
/** The last text with what was read of it: a decision changes no text, and is seen the sooner for it. */
let lastRead: { readonly key: string; readonly parsed: ParseResult } | null = null;
let whole: { readonly of: Sound; readonly contract: Contract } | null = null;
let stage: ExampleStage | null = null;
const releases = new BaselineReleases();

self.onmessage = ({ data }: MessageEvent<WorkerQuestion>): void => {
  const answer = reply(data);
  self.postMessage(answer);
};

/** Reads a text, and keeps what is to be derived from it; whether the reading was needed, and something can be. */
function takeText({ design, text, identities, validText, choices, arrangement }: TextToDerive): {
  readonly parsed: ParseResult;
  readonly isRead: boolean;
  readonly isNew: boolean;
} {
  const key = `${JSON.stringify(identities)}\n${text}`;
  const isRead = lastRead?.key === key;
  if (lastRead === null || !isRead) lastRead = { key, parsed: parse(text, identities) };
  const { parsed } = lastRead;
  const isSound = parsed.diagnostics.length === 0;
  const isDecided = isSame(sound, { design, choices, arrangement });
  const basis = isSound ? parsed.model : isDecided ? null : parse(validText, identities).model;
  if (basis !== null) sound = { design, model: completeModel(basis, choices), choices, arrangement };
  return { parsed, isRead, isNew: basis !== null };
}

function deriveText(text: TextToDerive): DerivedText {
  const started = performance.now();
  const { parsed, isRead, isNew } = takeText(text);
  const { model, diagnostics, places } = parsed;
  return {
    read: isRead ? null : { model, diagnostics, places: Object.fromEntries(places) },
    outline:
      isNew && sound !== null
        ? deriveOutline(sound.model, arrangementOf(sound.arrangement, sound.choices))
        : null,
    milliseconds: performance.now() - started,
  };
}

/** Whether what was derived last was of the same design, with the same decisions. */
const isSame = (last: Sound | null, asked: Omit<Sound, 'model'>): boolean =>
  last?.design === asked.design &&
  last.arrangement === asked.arrangement &&
  JSON.stringify(last.choices) === JSON.stringify(asked.choices);

/** The whole contract of the last sound text. */
function contractNow(): { readonly of: Sound; readonly contract: Contract } | null {
  if (sound === null) return null;
  if (whole?.of !== sound) {
    whole = { of: sound, contract: derive(sound.model, arrangementOf(sound.arrangement, sound.choices)) };
    stage = null;
  }
  return whole;
}

function review(): Reviewed | null {
  const started = performance.now();
  const now = contractNow();
  if (now === null) return null;
  const { contract, of } = now;
  const { entities, relationships } = indexModel(of.model);
  const counts = { entities: entities.size, relationships: relationships.length };
  const broken = releases.broken(of.design, of.arrangement, contract);
  return {
    findings: [...broken, ...contract.findings],
    breaking: broken.length,
    assumptions: contract.assumptions,
    figures: { ...figuresOf(contract, of.choices.answered), ...counts },
    milliseconds: performance.now() - started,
  };
}

function reply(question: WorkerQuestion): WorkerAnswer {
  switch (question.kind) {
    case 'derive':
      return { kind: 'derived', number: question.number, json: JSON.stringify(deriveText(question)) };
    case 'take':
      takeText(question);
      return { kind: 'taken', number: question.number };
    case 'contract':
      return {
        kind: 'contract',
        number: question.number,
        json: JSON.stringify(contractNow()?.contract ?? null),
      };
    case 'hold':
      releases.load(question.held);
      return { kind: 'held', number: question.number };
    case 'changes': {
      const now = contractNow();
      const changes =
        now === null ? null : releases.changesSince(now.of.design, question.label, now.contract);
      return { kind: 'changes', number: question.number, changes };
    }
    case 'review':
      return { kind: 'reviewed', number: question.number, json: JSON.stringify(review()) };
    case 'implied': {
      const now = contractNow();
      const implied = now === null ? null : impactOf(now.contract, now.of.model, question.statement);
      return { kind: 'implied', number: question.number, implied };
    }
    case 'grid': {
      const arranged = sound === null ? null : arrangementOf(sound.arrangement, sound.choices);
      const rows =
        sound === null || arranged === null ? [] : exposureGrid(sound.model, arranged, question.entity);
      return { kind: 'grid', number: question.number, rows };
    }
    case 'example': {
      const now = contractNow();
      stage ??= now === null ? null : { model: now.of.model, contract: now.contract, dataset: null };
      const example = stage === null ? null : exampleExchange(stage, question.operation);
      if (example !== null && stage !== null) stage = { ...stage, dataset: example.dataset };
      return { kind: 'example', number: question.number, example: example?.exchange ?? null };
    }
  }
}
