import { Injectable } from '@nestjs/common';
import { Subject } from 'rxjs';

/** A change of a design that others must follow before it is done. */
export interface Followed {
  readonly id: string;
  /** Takes what the change waits for. */
  readonly done: Promise<void>[];
}

/** An arrangement of a design that has another name now. */
export interface ArrangementRenamed {
  readonly design: string;
  readonly from: string;
  readonly to: string;
}

/** A release that somebody wants to take back. */
export interface ReleaseRemoving {
  readonly design: string;
  readonly label: string;
  /** Takes why it may not go. */
  readonly objections: string[];
}

/** A release about whose end something else is said now. */
export interface ReleaseMarked {
  readonly design: string;
  readonly label: string;
  readonly end: ReleaseEnd | null;
}

/** What comes after a release. */
export type Successor = { readonly release: string } | { readonly arrangement: string };

/** What is said about the end of a release. */
export interface ReleaseEnd {
  /** From when it is not to be used any more (RFC 3339). */
  readonly deprecatedAt: string;
  /** When it stops answering (RFC 3339); `null` where nobody knows. */
  readonly sunsetAt: string | null;
  readonly successor: Successor | null;
}

/** What happens to designs, for those who serve them. */
@Injectable()
export class DesignEvents {
  /** Ids of designs whose sound model changed. */
  readonly modelChanged = new Subject<string>();
  readonly arrangementRenamed = new Subject<ArrangementRenamed>();
  readonly removing = new Subject<Followed>();
  readonly releaseRemoving = new Subject<ReleaseRemoving>();
  readonly releaseMarked = new Subject<ReleaseMarked>();
  readonly broughtBack = new Subject<Followed>();
}
