import { arrangementOf, FIRST_ARRANGEMENT, NO_CHOICES } from '@isomeros/core/arrangement';
import { figuresOf } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { answer, importModel, type Intake } from '@isomeros/core/intake';
import { indexModel } from '@isomeros/core/model';
import type { IntakeRequest, IntakeResponse, ReadSource } from './intakeMessages.js';

let first: Intake | null = null;

const tell = (told: IntakeResponse): void => self.postMessage(told);

self.onmessage = ({ data }: MessageEvent<IntakeRequest>): void => {
  switch (data.kind) {
    case 'read':
      first = importModel(data.format, data.source, data.name, (done) => tell({ kind: 'progress', done }));
      tell({ kind: 'read', ...withFigures(first) });
      return;
    case 'answer':
      if (first !== null) tell({ kind: 'read', ...withFigures(answer(first, data.chosen)) });
  }
};

function withFigures(intake: Intake): ReadSource {
  if (intake.problem !== null) return { intake, figures: null };
  const contract = derive(intake.model, arrangementOf(FIRST_ARRANGEMENT, NO_CHOICES));
  const { entities, relationships } = indexModel(intake.model);
  const counts = { entities: entities.size, relationships: relationships.length };
  return { intake, figures: { ...figuresOf(contract, []), ...counts } };
}
