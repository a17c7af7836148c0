import { Injectable } from '@nestjs/common';
import type { CreatedDesign, Design, SourceFormat } from '@isomeros/api';
import type { IntakeFormat } from '@isomeros/core/intake';
import { reportOf } from '../intake/intakeReport.js';
import { IntakeService } from '../intake/intake.service.js';
import { ChangesService } from './changes.service.js';
import type { CreateDesignDto } from './designs.dto.js';

/** Makes designs of whatever they can begin with. */
@Injectable()
export class BeginningsService {
  constructor(
    private readonly changes: ChangesService,
    private readonly intake: IntakeService,
  ) {}

  /** Makes a design, and tells how far the reading of its source is, from 0 to 1; the signal ends it. */
  async begin(
    { name, source, records = true }: CreateDesignDto,
    aborted: AbortSignal,
    onProgress?: (done: number) => void,
  ): Promise<CreatedDesign> {
    const { format } = source;
    switch (format) {
      case 'sql':
      case 'json-schema':
      case 'records': {
        const given = { ...source, name: name ?? 'Untitled design' };
        const read = await this.intake.read(format, given, aborted, onProgress);
        const { intake } = read;
        aborted.throwIfAborted();
        const design = await this.changes.create(name, intake.text, records ? read.records : null);
        return { ...design, report: reportOf(intake) };
      }
      default:
        return { ...(await this.beginWith(name, format, source.text, records, aborted)), report: null };
    }
  }

  /** A design from what says everything about it. */
  private async beginWith(
    name: string | undefined,
    format: Exclude<SourceFormat, IntakeFormat>,
    text: string,
    /** Whether records that it carries are kept. */
    withRecords: boolean,
    aborted: AbortSignal,
  ): Promise<Design> {
    switch (format) {
      case 'notation':
        return this.changes.create(name, text);
      case 'design':
        return this.changes.createFromFile(name, text, withRecords, aborted);
      case 'sample':
        return this.changes.createFromSample(name, text);
    }
  }
}
