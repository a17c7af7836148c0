import { arrangementOf, FIRST_ARRANGEMENT, NO_CHOICES } from '@isomeros/core/arrangement';
import { figuresOf } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { answer, importModel, type Intake } from '@isomeros/core/intake';
import { indexModel } from '@isomeros/core/model';
import type { Answerer, TellProgress } from '../app/workers/protocol.js';
import { serve } from '../app/workers/serve.js';
import type { IntakeProtocol, ReadSource } from './protocol.js';

/** Progress is told in steps of a hundredth. */
function inSteps(progress: TellProgress): TellProgress {
  let last = 0;
  return (done) => {
    if (done - last < 0.01) return;
    last = done;
    progress(done);
  };
}

/** Takes one source in, and remembers it for other answers. */
class SourceReader {
  private question: IntakeProtocol['read']['question'] | null = null;
  private first: Intake | null = null;

  readonly answerer: Answerer<IntakeProtocol> = {
    read: (question, progress) => withFigures(this.read(question, progress)),
    answer: ({ chosen, record }) => {
      if (this.first === null || this.question === null) throw new Error('No source was read.');
      const first = record === this.question.record ? this.first : this.read({ ...this.question, record });
      return withFigures(answer(first, chosen));
    },
  };

  private read(question: IntakeProtocol['read']['question'], progress?: TellProgress): Intake {
    const { format, source, name, record } = question;
    this.question = question;
    this.first = importModel(format, source, name, {
      record,
      progress: progress === undefined ? undefined : inSteps(progress),
    });
    return this.first;
  }
}

function withFigures(intake: Intake): ReadSource {
  if (intake.problem !== null) return { intake, figures: null };
  const contract = derive(intake.model, arrangementOf(FIRST_ARRANGEMENT, NO_CHOICES));
  const { entities, relationships } = indexModel(intake.model);
  const counts = { entities: entities.size, relationships: relationships.length };
  return { intake, figures: { ...figuresOf(contract, []), ...counts } };
}

serve(new SourceReader().answerer);
