import { Injectable } from '@nestjs/common';
import { pointerTo } from '@isomeros/core/engine';
import { MAX_INTAKE_BYTES, type IntakeFormat } from '@isomeros/core/intake';
import type { CompressedRecords } from '../compute/compressedRecords.js';
import type { ReadIntake } from '../compute/program.js';
import { ComputeService } from '../compute/compute.service.js';
import { ApiProblem } from '../http/problem.js';

/** A source, and how its questions are answered. */
interface SourceGiven {
  readonly text: string;
  readonly name: string;
  readonly record?: string | undefined;
  readonly answers?: Readonly<Record<string, unknown>> | undefined;
}

/** What became of a source, and the records of it that fit. */
interface IntakeRead {
  readonly intake: ReadIntake;
  readonly records: CompressedRecords;
}

/** Reads sources as models. */
@Injectable()
export class IntakeService {
  constructor(private readonly compute: ComputeService) {}

  /** Reads a source, and tells how far it is; the signal ends the reading. */
  async read(
    format: IntakeFormat,
    given: SourceGiven,
    signal: AbortSignal,
    onProgress: (done: number) => void = () => undefined,
  ): Promise<IntakeRead> {
    const { text: source, name, record, answers = {} } = given;
    const bytes = Buffer.byteLength(source);
    if (bytes > MAX_INTAKE_BYTES)
      throw new ApiProblem('too-large', `The source has ${bytes} bytes; the limit is ${MAX_INTAKE_BYTES}.`);
    const { intake, records, wrong } = await this.compute.readSource(
      { format, source, name, record, answers },
      signal,
      onProgress,
    );
    if (intake.problem !== null) throw new ApiProblem('unsound', intake.problem);
    if (wrong.length > 0) {
      const errors = wrong.map(({ question, message }) => ({
        pointer: pointerTo('/source/answers', question),
        code: 'unknown',
        message,
      }));
      throw new ApiProblem('invalid', 'Something is answered that is not asked.', { errors });
    }
    return { intake, records };
  }
}
