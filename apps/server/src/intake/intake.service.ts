import { Injectable } from '@nestjs/common';
import { MAX_INTAKE_BYTES, type Intake, type IntakeFormat } from '@isomeros/core/intake';
import { ComputeService } from '../compute/compute.service.js';
import { ApiProblem } from '../http/problem.js';

/** Reads sources as models. */
@Injectable()
export class IntakeService {
  constructor(private readonly compute: ComputeService) {}

  /** Reads a source; the signal ends the reading. */
  async read(format: IntakeFormat, source: string, name: string, signal: AbortSignal): Promise<Intake> {
    const bytes = Buffer.byteLength(source);
    if (bytes > MAX_INTAKE_BYTES)
      throw new ApiProblem('too-large', `The source has ${bytes} bytes; the limit is ${MAX_INTAKE_BYTES}.`);
    const intake = await this.compute.readSource({ format, source, name }, signal);
    if (intake.problem !== null) throw new ApiProblem('unsound', intake.problem);
    return intake;
  }
}
