import type { ReleaseEnd } from '@isomeros/api';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';

/** What serves designs, or depends on them in another way: designs ask it, and wait for its answers. */
export interface DesignDependent {
  /** Something else is implied by the valid model of a design. */
  modelChanged(design: string): void;
  /** An arrangement gets another name, in the transaction that gives it. */
  arrangementRenaming(manager: EntityManager, design: string, from: string, to: string): Promise<void>;
  /** It has the name by now. */
  arrangementRenamed(design: string, from: string, to: string): void;
  /** Why a design may not be without arrangements other than those; `null` where it may. */
  objectionToArrangements(
    manager: EntityManager,
    design: string,
    left: readonly string[],
  ): Promise<string | null>;
  /** A design was removed, and can be restored. */
  designRemoved(design: string): Promise<void>;
  designRestored(design: string): Promise<void>;
  /** Why a release may not be taken back; `null` where it may. */
  objectionToRemovingRelease(design: string, label: string): string | null;
  /** Something else is said about the end of a release. */
  releaseMarked(design: string, label: string, end: ReleaseEnd | null): void;
  /** Where an arrangement or a release is served now; `null` where it is not. */
  addressOf(design: string, kind: 'arrangement' | 'release', called: string): string | null;
}

/** All that depends on designs. Whatever does registers here: designs know none of it. */
@Injectable()
export class DesignDependents {
  private readonly all: DesignDependent[] = [];

  register(dependent: DesignDependent): void {
    this.all.push(dependent);
  }

  modelChanged(design: string): void {
    for (const dependent of this.all) dependent.modelChanged(design);
  }

  async arrangementRenaming(manager: EntityManager, design: string, from: string, to: string): Promise<void> {
    for (const dependent of this.all) await dependent.arrangementRenaming(manager, design, from, to);
  }

  arrangementRenamed(design: string, from: string, to: string): void {
    for (const dependent of this.all) dependent.arrangementRenamed(design, from, to);
  }

  async objectionToArrangements(
    manager: EntityManager,
    design: string,
    left: readonly string[],
  ): Promise<string | null> {
    for (const dependent of this.all) {
      const objection = await dependent.objectionToArrangements(manager, design, left);
      if (objection !== null) return objection;
    }
    return null;
  }

  async designRemoved(design: string): Promise<void> {
    await Promise.all(this.all.map((dependent) => dependent.designRemoved(design)));
  }

  async designRestored(design: string): Promise<void> {
    await Promise.all(this.all.map((dependent) => dependent.designRestored(design)));
  }

  objectionToRemovingRelease(design: string, label: string): string | null {
    for (const dependent of this.all) {
      const objection = dependent.objectionToRemovingRelease(design, label);
      if (objection !== null) return objection;
    }
    return null;
  }

  addressOf(design: string, kind: 'arrangement' | 'release', called: string): string | null {
    for (const dependent of this.all) {
      const address = dependent.addressOf(design, kind, called);
      if (address !== null) return address;
    }
    return null;
  }

  releaseMarked(design: string, label: string, end: ReleaseEnd | null): void {
    for (const dependent of this.all) dependent.releaseMarked(design, label, end);
  }
}
