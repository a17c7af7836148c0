import { randomUUID } from 'node:crypto';
import type { RunningIntake } from '@isomeros/api';
import { Injectable, Logger, type BeforeApplicationShutdown } from '@nestjs/common';
import { ApiProblem, problemBody } from '../http/problem.js';
import { asApiProblem } from '../http/problem.filter.js';
import { BeginningsService } from './beginnings.service.js';
import type { CreateDesignDto } from './designs.dto.js';

/** So many are read at once, and so many are told of. */
const MOST = 12;
/** What became of one is told for so long. */
const TOLD_MS = 10 * 60_000;

interface Kept {
  view: RunningIntake;
  readonly controller: AbortController;
  /** When it ended; `null` while it is read. */
  endedAt: number | null;
}

/** Sources that are read while whoever sent them does something else. */
@Injectable()
export class IntakesService implements BeforeApplicationShutdown {
  private readonly logger = new Logger('Intake');
  private readonly kept = new Map<string, Kept>();

  constructor(private readonly beginnings: BeginningsService) {}

  begin(wanted: CreateDesignDto): RunningIntake {
    this.forgetOld();
    if (this.kept.size >= MOST) this.forgetOldest();
    const view: RunningIntake = { id: randomUUID(), done: 0, design: null, report: null, problem: null };
    const one: Kept = { view, controller: new AbortController(), endedAt: null };
    this.kept.set(view.id, one);
    void this.run(one, wanted);
    return view;
  }

  read(id: string): RunningIntake {
    this.forgetOld();
    return this.find(id).view;
  }

  /** Cancels one that is read, and forgets it. */
  remove(id: string): void {
    this.find(id).controller.abort();
    this.kept.delete(id);
  }

  beforeApplicationShutdown(): void {
    for (const { controller } of this.kept.values()) controller.abort();
  }

  private find(id: string): Kept {
    const one = this.kept.get(id);
    if (one === undefined) throw new ApiProblem('not-found', `There is no intake ${id}.`);
    return one;
  }

  private async run(one: Kept, wanted: CreateDesignDto): Promise<void> {
    const tell = (done: number): void => {
      one.view = { ...one.view, done };
    };
    try {
      const { id, report } = await this.beginnings.begin(wanted, one.controller.signal, tell);
      one.view = { ...one.view, done: 1, design: id, report };
    } catch (error) {
      one.view = { ...one.view, problem: problemBody(asApiProblem(error, 'An intake', this.logger)) };
    }
    one.endedAt = Date.now();
  }

  /** Makes room for one more. */
  private forgetOldest(): void {
    const oldest = [...this.kept].find(([, { endedAt }]) => endedAt !== null);
    if (oldest === undefined)
      throw new ApiProblem('conflict', `At most ${MOST} sources are read at once; cancel one first.`);
    this.kept.delete(oldest[0]);
  }

  private forgetOld(): void {
    for (const [id, { endedAt }] of this.kept)
      if (endedAt !== null && Date.now() - endedAt > TOLD_MS) this.kept.delete(id);
  }
}
