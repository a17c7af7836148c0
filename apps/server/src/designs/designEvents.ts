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

/** What happens to designs, for those who serve them. */
@Injectable()
export class DesignEvents {
  /** Ids of designs whose sound model changed. */
  readonly modelChanged = new Subject<string>();
  readonly arrangementRenamed = new Subject<ArrangementRenamed>();
  readonly removing = new Subject<Followed>();
  readonly broughtBack = new Subject<Followed>();
}
