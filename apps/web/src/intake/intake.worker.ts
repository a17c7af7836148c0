import { arrangementOf, FIRST_ARRANGEMENT, NO_CHOICES } from '@isomeros/core/arrangement';
import { figuresOf } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { answer, importModel, type Intake } from '@isomeros/core/intake';
import { withRecords } from '@isomeros/core/initialRecords';
import { indexModel } from '@isomeros/core/model';
import { Random, randomUuid } from '@isomeros/core/seeding';
import type { Answerer, TellProgress } from '../app/workers/protocol.js';
import { serve } from '../app/workers/serve.js';
import type { IntakeProtocol, ReadSource } from './protocol.js';

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
      now: Date.now(),
      progress,
    });
    return this.first;
  }
}

function withFigures(read: Intake): ReadSource {
  const random = new Random(1);
  // What is made here is counted and left: the server reads the source anew when it is kept.
  const { rows, ...rest } = withRecords(read, {
    now: Date.now(),
    uuid: () => randomUuid(() => random.next()),
  });
  const intake = { ...rest, records: rows.length };
  if (intake.problem !== null) return { intake, figures: null };
  const contract = derive(intake.model, arrangementOf(FIRST_ARRANGEMENT, NO_CHOICES));
  const { entities, relationships } = indexModel(intake.model);
  const counts = { entities: entities.size, relationships: relationships.length };
  return { intake, figures: { ...figuresOf(contract, []), ...counts } };
}

serve(new SourceReader().answerer);
